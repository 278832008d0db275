import { say } from '../../../base/words/say.js';
import { bySource, type EntryDefinition } from '../entry.js';
import type { ReadingSource } from '../state.js';
import { source } from './fields.js';

/** Liquid comes back at the return while the pump runs: seen by whoever stands there. */
export interface ReturnedEntry {
  readonly type: 'returned';
  readonly source?: ReadingSource;
}

export const returned: EntryDefinition<ReturnedEntry> = {
  schema: { source },
  belongs: 'anytime',
  moves: (book) => book.returned(),
  apply: () => undefined,
  reads: ({ source: from }) => say('Liquid comes back{bySource}', { bySource: bySource(from) }),
};
