import { say, sayWord } from '../../../base/words/say.js';
import { JOB_KINDS, JOB_KIND_KEYS } from '../../../workshop/job-kinds/kinds.js';
import { refusal, type EntryDefinition } from '../entry.js';
import type { Rescoped } from '../state.js';
import { oneOf, sentence, step } from './fields.js';

export interface RescopedEntry extends Rescoped {
  readonly type: 'rescoped';
  readonly step: string;
}

export const rescoped: EntryDefinition<RescopedEntry> = {
  schema: { step, kind: oneOf(JOB_KIND_KEYS).required(), reason: sentence.min(3).required() },
  belongs: 'own-step',
  apply: ({ service }, { kind, reason }, made) => void service.rescopes.push({ kind, reason, ...made }),
  // it is written by its own request, so that the steps change with it
  refuse: (_entry, { procedure }) =>
    procedure.service ? refusal('unsafe', { why: 'rescope-elsewhere' }) : refusal('unknown-item', { why: 'not-a-service' }),
  reads: ({ kind, reason }) => say('Scope changed to {label}: {reason}', { label: sayWord(JOB_KINDS[kind].label), reason }),
};
