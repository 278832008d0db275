import { AsyncLocalStorage } from 'node:async_hooks';
import german from '../../../core/base/words/de.json' with { type: 'json' };
import { bringWords } from '../../../core/base/words/say.js';
import { readBy, USUAL_READING, type Reading } from '../../../core/base/units/reading.js';

/** Who reads what this piece of work writes: several people ask at once, each in an own way. */
bringWords('de', german);
const readers = new AsyncLocalStorage<Reading>();
readBy(() => readers.getStore() ?? USUAL_READING);

/** Words, numbers and dates of `work` are written the way of whoever reads them. */
export const writtenFor = <T>(way: Reading, work: () => T): T => readers.run(way, work);
