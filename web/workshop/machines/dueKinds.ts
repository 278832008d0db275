import { say } from '@core/base/words/say.js';
import type { SystemLine } from '@core/workshop/machines/answers.js';
import type { DueKind } from '@core/workshop/machines/attention.js';

/** What falls due, in a word. */
export const DUE_KINDS: Readonly<Record<DueKind, string>> = {
  'coolant-service': 'coolant',
  'settling-check': 'settling check',
  'follow-up': 'follow-up',
  'dust-clean': 'dust',
  'paste-renewal': 'paste',
  stirring: 'stirring',
};

/** The kind of a machine's next date, in a word. */
export function nextWord({ dues, nextDueOn }: SystemLine): string {
  return say(DUE_KINDS[dues.find(({ dueOn }) => dueOn === nextDueOn)?.kind ?? 'coolant-service']);
}

/** What the next date of a machine is for: "dust", "coolant, put off 2×". */
export function nextKind({ dues, nextDueOn }: SystemLine): string {
  const next = dues.find(({ dueOn }) => dueOn === nextDueOn);
  return `${say(DUE_KINDS[next?.kind ?? 'coolant-service'])}${next && next.postponed > 0 ? say(', put off {postponed}×', { postponed: next.postponed }) : ''}`;
}
