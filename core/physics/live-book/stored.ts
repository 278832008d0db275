import { readObject } from '../../base/checking/stored.js';
import { BOOK_ENGINE, dryContents, type LoopContents } from './loopContents.js';

const read = readObject<LoopContents>('what is inside a loop');

/** Contents as some program stored them. Those of a newer engine say nothing here: nobody knows what is inside. */
export function readContents(stored: unknown): LoopContents {
  const contents = read(stored);
  const unknown = { ...dryContents(null), insideMl: null, isLevelRead: false };
  return contents.engine > BOOK_ENGINE ? unknown : { ...unknown, ...contents };
}
