import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { setTimeout as sleep } from 'node:timers/promises';
import { pino, type Logger } from 'pino';
import { openDatabase, openPool } from '../base/database/client.js';
import { migrateDatabase, migrationsFolder, NewerDatabase } from '../base/database/migrate.js';
import { freeBytes, LOW_DISK_BYTES } from '../operations/backup/archive.js';
import { backupFolder } from '../operations/backup/commands.js';
import { PHOTO } from '../workshop/photos/reencode.js';
import { seedDemo } from '../../demo/seed.js';
import { describeAway, type Readiness } from '../operations/health/routes.js';
import { createServer } from './app.js';
import { instrumentsFor } from '../bench/instruments/reach.js';
import { InstrumentsThread } from '../bench/instruments/threadHandle.js';
import { NightlyWork } from '../operations/nightly/nightly.js';
import { PushHub } from '../base/push/hub.js';
import { BenchKeeper } from '../bench/simulated-bench/keeper.js';
import { processClock, systemClock } from '../base/http/clock.js';

declare const LAVACRUM_VERSION: string;

/** ms between attempts to reach the database while it is away */
const RETRY_MS = 1500;
/** how far the broker's port lies behind the page's, unless it is set */
const MQTT_PORT_AFTER = 3;

interface Settings {
  readonly port: number;
  readonly databaseUrl: string;
  /** as the owner of the tables, for migrations alone */
  readonly ownerUrl: string;
  readonly dataFolder: string;
  readonly demo: boolean;
  /** backups that are kept; 0: none is made by night */
  readonly backupsKept: number;
  readonly mail: { readonly smtpUrl: string | null; readonly sender: string };
  readonly mqtt: { readonly mqttUrl: string | null; readonly host: string; readonly port: number };
}

function readSettings(): Settings {
  const port = Number(process.env.LAVACRUM_PORT ?? '4180');
  if (!Number.isInteger(port) || port < 0 || port > 65_535) throw new Error('LAVACRUM_PORT must be a port number from 0 to 65535');
  const databaseUrl = process.env.DATABASE_URL;
  if (!databaseUrl) throw new Error('DATABASE_URL is not set; start the app with ./lavacrum start');
  // beside the page's own port, so that two servers on one machine do not meet
  const mqttPort = Number(process.env.LAVACRUM_MQTT_PORT ?? (port === 0 ? '0' : String(port + MQTT_PORT_AFTER)));
  if (!Number.isInteger(mqttPort) || mqttPort < 0 || mqttPort > 65_535)
    throw new Error('LAVACRUM_MQTT_PORT must be a port number from 0 to 65535');
  return {
    port,
    databaseUrl,
    ownerUrl: process.env.LAVACRUM_OWNER_URL ?? databaseUrl,
    dataFolder: path.resolve(process.env.LAVACRUM_DATA ?? '.data'),
    demo: process.env.LAVACRUM_DEMO !== '0',
    backupsKept: wholeNumber('LAVACRUM_BACKUPS_KEPT', 14, 1000),
    mail: { smtpUrl: process.env.SMTP_URL ?? null, sender: process.env.LAVACRUM_MAIL_FROM ?? 'workshop@lavacrum.local' },
    mqtt: { mqttUrl: process.env.MQTT_URL ?? null, host: process.env.LAVACRUM_MQTT_HOST ?? '127.0.0.1', port: mqttPort },
  };
}

function wholeNumber(name: string, usual: number, most: number): number {
  const value = Number(process.env[name] ?? String(usual));
  if (!Number.isInteger(value) || value < 0 || value > most) throw new Error(`${name} must be a whole number from 0 to ${most}`);
  return value;
}

/** The key that signs session cookies. Made once; a new one would sign everybody out. */
function sessionSecret(dataFolder: string): string {
  const file = path.join(dataFolder, 'session-secret');
  if (!existsSync(file)) {
    mkdirSync(dataFolder, { recursive: true });
    writeFileSync(file, randomBytes(32).toString('base64url'), { mode: 0o600 });
  }
  return readFileSync(file, 'utf8').trim();
}

/** Migrates and seeds as soon as the database answers, however long that takes. */
async function prepare(settings: Settings, readiness: Readiness, log: Logger, here: string): Promise<void> {
  while (!readiness.ready) {
    try {
      await migrateDatabase(settings.ownerUrl, migrationsFolder(here));
      if (settings.demo) await seedDemoOnce(settings);
      readiness.ready = true;
      log.info('database ready');
    } catch (error) {
      if (error instanceof NewerDatabase) throw error;
      readiness.reason = describeAway(error);
      log.warn(
        { reason: readiness.reason, name: error instanceof Error ? error.name : 'unknown', detail: detailOf(error) },
        'database not ready; trying again',
      );
      await sleep(RETRY_MS);
    }
  }
}

/** At start there are no user's parameters yet, so the first line of a message may be logged. */
const detailOf = (error: unknown): string | undefined =>
  error instanceof Error ? (error.cause instanceof Error ? error.cause.message : error.message).split('\n')[0] : undefined;

async function seedDemoOnce(settings: Settings): Promise<void> {
  const pool = openPool(settings.databaseUrl, () => undefined, { patient: true });
  try {
    await seedDemo(openDatabase(pool), systemClock);
  } finally {
    await pool.end();
  }
}

function start(): void {
  const settings = readSettings();
  const here = path.dirname(fileURLToPath(import.meta.url));
  const log = pino({ level: process.env.LAVACRUM_LOG ?? 'info', base: null });
  const readiness: Readiness = { ready: false, reason: 'starting' };
  const pool = openPool(settings.databaseUrl, (error) =>
    log.warn({ code: (error as Error & { code?: string }).code }, 'a database connection broke'),
  );
  const push = new PushHub(settings.databaseUrl, log);
  const clock = processClock();
  const instruments = new InstrumentsThread(
    { databaseUrl: settings.databaseUrl, ...settings.mqtt },
    path.join(here, 'instruments.mjs'),
    log,
  );
  const keeper = new BenchKeeper(log);
  const { ownerUrl, backupsKept: kept } = settings;
  const backup = kept > 0 ? { ownerUrl, folder: backupFolder(settings.dataFolder), kept } : null;
  const nightly = new NightlyWork({ databaseUrl: settings.databaseUrl, ...settings.mail, backup }, openDatabase(pool), clock, log);
  push.onCommand = (command) => instruments.command(command);
  const webFolder = path.join(here, 'web');
  const app = createServer({
    pool,
    clock,
    log,
    version: LAVACRUM_VERSION,
    secret: sessionSecret(settings.dataFolder),
    readiness,
    webFolder: existsSync(webFolder) ? webFolder : null,
    behindProxy: process.env.LAVACRUM_PROXY === '1',
    push,
    instruments: instrumentsFor(instruments, keeper),
    sendLetter: (letter) => nightly.sendLetter(letter),
    ownOrigin: `http://localhost:${settings.port}`,
    photoQuotaBytes: wholeNumber('LAVACRUM_PHOTOS_MB', PHOTO.quotaBytes / 1e6, 1e6) * 1e6,
    partsOf: () => ({
      queue: nightly.reached ? 'ok' : 'away',
      push: push.listens ? 'ok' : 'away',
      instruments: instruments.reached ? 'ok' : 'away',
      disk: freeBytes(settings.dataFolder) < LOW_DISK_BYTES ? 'low' : 'ok',
      backup: nightly.backupState,
    }),
  });
  const listener = app.listen(settings.port, '127.0.0.1', (error?: Error) => {
    if (error) {
      log.error({ code: (error as Error & { code?: string }).code }, `cannot listen on port ${settings.port}`);
      process.exitCode = 1;
      void pool.end();
      return;
    }
    log.info({ port: (listener.address() as AddressInfo).port }, 'listening');
    // each of the three tries again by itself until it stands; none waits for another
    void prepare(settings, readiness, log, here)
      .then(() => {
        instruments.start();
        return Promise.all([push.listen(), nightly.start()]);
      })
      .catch((error: unknown) => {
        log.fatal(error instanceof NewerDatabase ? error.message : `the server cannot go on: ${detailOf(error)}`);
        process.exit(1);
      });
  });
  const stop = (): void => {
    readiness.ready = false;
    readiness.reason = 'stopping';
    // open streams would keep the listener from closing
    keeper.close();
    void instruments.close();
    void nightly.close();
    void push.close();
    listener.close(() => void pool.end().finally(() => process.exit(0)));
    listener.closeIdleConnections();
    // a browser may keep a connection open; its last answer is out by then
    setTimeout(() => process.exit(0), 3000).unref();
  };
  process.on('SIGTERM', stop);
  process.on('SIGINT', stop);
}

start();
