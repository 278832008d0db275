import { parentPort, workerData } from 'node:worker_threads';
import { pino } from 'pino';
import { openDatabase, openPool } from '../../base/database/client.js';
import { processClock } from '../../base/http/clock.js';
import { InstrumentService, type InstrumentSettings } from './service.js';
import type { FromThread, ToThread } from './threadHandle.js';

/**
 * The thread that speaks with the instruments: broker, readings and the guard that stops a pump have an event loop and
 * connections of their own, so that no request keeps a hand off the switch.
 */

/** connections; readings are kept one batch after the other */
const CONNECTIONS = 4;
/** ms between looks at whether instruments are reached */
const TELL_MS = 250;

const settings = workerData as InstrumentSettings;
const port = parentPort;
if (!port) throw new Error('this file runs as a thread of the server');
const log = pino({ level: process.env.LAVACRUM_LOG ?? 'info', base: null });
const pool = openPool(
  settings.databaseUrl,
  (error) => log.warn({ code: (error as Error & { code?: string }).code }, 'a database connection broke'),
  {
    max: CONNECTIONS,
    name: 'lavacrum instruments',
  },
);
const service = new InstrumentService(settings, openDatabase(pool), processClock(), log);

let told = '';
function tell(): void {
  const state: FromThread = { brokers: service.brokers, reach: service.reach, reached: service.reached };
  const text = JSON.stringify(state);
  if (text === told) return;
  told = text;
  port?.postMessage(state);
}
const telling = setInterval(tell, TELL_MS);

port.on('message', (message: ToThread) => {
  if (message.do === 'command') return service.command(message.command);
  clearInterval(telling);
  void service
    .close()
    .then(() => pool.end())
    .finally(() => port.close());
});
void service.start().then(tell);
