import { say } from '../../../base/words/say.js';
import { id, note } from '../../../base/checking/fields.js';
import { refusal, type EntryDefinition } from '../entry.js';

/** The other places that share a leak's cause, or the bag of an exchanged part, were looked at; what was not sound among them is on record as a leak or a doubt of its own. */
export interface SistersSeenEntry {
  readonly type: 'sisters-seen';
  /** the leak, or the exchange of a part, that asked */
  readonly leak: string;
  readonly text: string;
}

export const sistersSeen: EntryDefinition<SistersSeenEntry> = {
  schema: { leak: id().required(), text: note().max(300).required() },
  belongs: 'anytime',
  apply: (state, { leak }, made) => {
    const found = state.leaks.find(({ eventId }) => eventId === leak);
    if (found) found.sistersSeen = made;
    const swap = state.service.swaps.find(({ eventId }) => eventId === leak);
    if (swap) swap.sistersSeen = made;
  },
  refuse: ({ leak }, { state }) =>
    [...state.leaks, ...state.service.swaps].some(({ eventId }) => eventId === leak)
      ? null
      : refusal('unknown-item', { why: 'unknown-leak' }),
  reads: ({ text }) => say('Places with the same cause or bag looked at{text}', { text: text ? `: ${text}` : '' }),
};
