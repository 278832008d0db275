import { expose } from 'comlink';
import type { Reading } from '@core/base/units/reading.js';
import { writeInWorker } from '../../base/words/inWorker.js';
import { TwinEngine } from './twinEngine.js';

export class TwinInWorker extends TwinEngine {
  writeFor(way: Reading): Promise<void> {
    return writeInWorker(way);
  }
}

expose(new TwinInWorker());
