import { id, note } from '../../../base/checking/fields.js';
import { refusal, type EntryDefinition } from '../entry.js';

/** The other places that share a leak's cause were looked at; what was not sound among them is on record as a leak or a doubt of its own. */
export interface SistersSeenEntry {
  readonly type: 'sisters-seen';
  readonly leak: string;
  readonly text: string;
}

export const sistersSeen: EntryDefinition<SistersSeenEntry> = {
  schema: { leak: id().required(), text: note().max(300).required() },
  belongs: 'anytime',
  apply: (state, { leak }, made) => {
    const found = state.leaks.find(({ eventId }) => eventId === leak);
    if (found) found.sistersSeen = made;
  },
  refuse: ({ leak }, { state }) =>
    state.leaks.some(({ eventId }) => eventId === leak) ? null : refusal('unknown-item', { why: 'unknown-leak' }),
  reads: ({ text }) => `Places with the same cause looked at${text ? `: ${text}` : ''}`,
};
