import { say } from '../../../base/words/say.js';
import type { EntryDefinition } from '../entry.js';
import type { Missed } from '../state.js';
import { sentence } from './fields.js';

/** Something that hands reached for and did not find: the next kit of this kind asks for it. */
export interface MissedEntry extends Missed {
  readonly type: 'missed';
}

export const missed: EntryDefinition<MissedEntry> = {
  schema: { name: sentence.max(120).required() },
  belongs: 'anytime',
  apply: (state, { name }, made) => void state.missed.push({ name, ...made }),
  reads: ({ name }) => say('Was missing from the kit: {name}', { name }),
};
