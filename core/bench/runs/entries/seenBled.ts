import { say } from '../../../base/words/say.js';
import type { EntryDefinition } from '../entry.js';

/** Closed by eye and ear: nothing bubbles, nothing sounds, and no level was compared. The level is looked at earlier for it. */
export interface SeenBledEntry {
  readonly type: 'seen-bled';
}

export const seenBled: EntryDefinition<SeenBledEntry> = {
  schema: {},
  belongs: { kind: 'bleed' },
  apply: (state, _entry, made) => {
    state.seenBled = made;
  },
  reads: () => say('Bled as seen: no bubbles, no sound of air; no level compared'),
};
