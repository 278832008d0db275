import { say } from '../../../base/words/say.js';
import { id, note } from '../../../base/checking/fields.js';
import { refusal, remark, type EntryDefinition } from '../entry.js';

export interface CorrectionEntry {
  readonly type: 'correction';
  readonly about: string | null;
  readonly text: string;
}

export const correction: EntryDefinition<CorrectionEntry> = {
  schema: { about: id().allow(null).required(), text: note().trim().min(3).disallow('').required() },
  belongs: 'log',
  apply: (state, { text, about }, made) => void state.corrections.push({ ...remark(made, text), about }),
  refuse: (_entry, { state }) => (state.signedOff ? null : refusal('step-open', { why: 'open-run-correction' })),
  reads: ({ text }) => say('Correction: {text}', { text }),
};
