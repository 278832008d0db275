import { readBy, type Reading } from '@core/base/units/reading.js';
import { fetchWords } from './words.js';

/** A worker knows nothing of its page: whoever looks at it is told, so that figures and words come as that person reads them. */
export async function writeInWorker(way: Reading): Promise<void> {
  await fetchWords(way.language).catch(() => undefined);
  readBy(() => way);
}
