import { expose } from 'comlink';
import { readBy, type Reading } from '@core/base/units/reading.js';
import { fetchWords } from '../../base/words/words.js';
import { TwinEngine } from './twinEngine.js';

/** A worker knows nothing of its page: whoever looks at it is told, so that figures and words come as that person reads them. */
export class TwinInWorker extends TwinEngine {
  async writeFor(way: Reading): Promise<void> {
    await fetchWords(way.language).catch(() => undefined);
    readBy(() => way);
  }
}

expose(new TwinInWorker());
