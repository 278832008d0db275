import { say } from '../../../base/words/say.js';
import { finite } from '../../../base/checking/fields.js';
import { formatMl } from '../../../base/units/display.js';
import { bySource, stamp, type EntryDefinition } from '../entry.js';
import type { ReadingSource } from '../state.js';
import { source } from './fields.js';

export interface LevelEntry {
  readonly type: 'level';
  readonly levelMl: number;
  readonly source?: ReadingSource;
}

export const level: EntryDefinition<LevelEntry> = {
  schema: { levelMl: finite().min(0).max(20_000).required(), source },
  belongs: 'anytime',
  moves: (book, { levelMl, source: from }) => book.level(levelMl, book.levelSdMl(from !== undefined && from !== 'hand')),
  apply: (state, { levelMl, source: from }, made) => void state.levels.push(stamp(made, levelMl, from)),
  reads: ({ levelMl, source: from }) =>
    say('Level: {formatMl} in the reservoir{bySource}', { formatMl: formatMl(levelMl), bySource: bySource(from) }),
};
