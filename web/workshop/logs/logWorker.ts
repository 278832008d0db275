import { expose } from 'comlink';
import type { Reading } from '@core/base/units/reading.js';
import { writeInWorker } from '../../base/words/inWorker.js';
import { LogEngine } from './logEngine.js';

export class LogInWorker extends LogEngine {
  writeFor(way: Reading): Promise<void> {
    return writeInWorker(way);
  }
}

expose(new LogInWorker());
