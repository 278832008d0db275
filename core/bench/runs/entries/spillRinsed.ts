import { say } from '../../../base/words/say.js';
import { id } from '../../../base/checking/fields.js';
import { refusal, type EntryDefinition } from '../entry.js';
import { sentence } from './fields.js';

export interface SpillRinsedEntry {
  readonly type: 'spill-rinsed';
  readonly spill: string;
  readonly with: string;
}

export const spillRinsed: EntryDefinition<SpillRinsedEntry> = {
  schema: { spill: id().required(), with: sentence.required() },
  belongs: 'anytime',
  apply: (state, { spill }, { at }) => {
    const found = state.spills.find(({ eventId }) => eventId === spill);
    if (found) found.rinsedAt = at;
  },
  refuse: ({ spill }, { state }) =>
    state.spills.some(({ eventId }) => eventId === spill) ? null : refusal('unknown-item', { why: 'unknown-spill' }),
  reads: (entry) => say('Rinsed with {with}; drying since', { with: entry.with }),
};
