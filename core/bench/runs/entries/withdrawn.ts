import { say } from '../../../base/words/say.js';
import { id } from '../../../base/checking/fields.js';
import type { EntryDefinition } from '../entry.js';

export interface WithdrawnEntry {
  readonly type: 'withdrawn';
  readonly event: string;
}

export const withdrawn: EntryDefinition<WithdrawnEntry> = {
  schema: { event: id().required() },
  belongs: 'log',
  // what it takes back is left out of the fold: see replay.ts
  apply: () => undefined,
  reads: ({ event }, { sentenceOf }) => say('Taken back: {sentenceOf}', { sentenceOf: sentenceOf(event) }),
};
