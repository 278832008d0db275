import { expose } from 'comlink';
import { readBy, type Reading } from '@core/base/units/reading.js';
import { fetchWords } from '../../base/words/words.js';
import { LogEngine } from './logEngine.js';

/** A worker knows nothing of its page: what it says is said in the reader's words. */
export class LogInWorker extends LogEngine {
  async writeFor(way: Reading): Promise<void> {
    await fetchWords(way.language).catch(() => undefined);
    readBy(() => way);
  }
}

expose(new LogInWorker());
