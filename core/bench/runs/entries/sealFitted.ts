import { say } from '../../../base/words/say.js';
import { id } from '../../../base/checking/fields.js';
import { refusal, type EntryDefinition } from '../entry.js';
import { sentence } from './fields.js';

/** The place that a seal was taken from has one again. */
export interface SealFittedEntry {
  readonly type: 'seal-fitted';
  /** the entry that took it */
  readonly borrowed: string;
  readonly text: string;
}

export const sealFitted: EntryDefinition<SealFittedEntry> = {
  schema: { borrowed: id().required(), text: sentence.max(300).required() },
  belongs: 'anytime',
  apply: (state, { borrowed }, made) => {
    const index = state.borrowedSeals.findIndex(({ eventId }) => eventId === borrowed);
    const found = state.borrowedSeals[index];
    if (found) state.borrowedSeals[index] = { ...found, fitted: made };
  },
  refuse: ({ borrowed }, { state }) =>
    state.borrowedSeals.some(({ eventId, fitted }) => eventId === borrowed && fitted === null)
      ? null
      : refusal('unknown-item', { why: 'unknown-seal' }),
  reads: ({ text }) => say('Sealed again where a seal was missing: {text}', { text }),
};
