import type { JobKind } from '../job-kinds/kinds.js';
import type { LoopHistory } from '../jobs/answers.js';
import { adviseByHistory, NOTHING_SAID } from '../jobs/historyAdvice.js';
import { CALLED_KINDS } from './schema.js';

/** What a machine would come in for if nothing else were said. */
export function nextKind(history: LoopHistory): JobKind {
  const { kind } = adviseByHistory(NOTHING_SAID, history, null);
  return CALLED_KINDS.includes(kind) ? kind : 'drain-refill';
}
