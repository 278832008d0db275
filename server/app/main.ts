import { existsSync, readFileSync, rmSync } from 'node:fs';
import type { Server as HttpServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { setTimeout as sleep } from 'node:timers/promises';
import type { Pool } from 'pg';
import { pino, type Logger } from 'pino';
import { openDatabase, openPool, type Database } from '../base/database/client.js';
import { migrateDatabase, migrationsFolder, NewerDatabase } from '../base/database/migrate.js';
import { freeBytes, LOW_DISK_BYTES } from '../operations/backup/archive.js';
import { backupFolder } from '../operations/backup/commands.js';
import { PHOTO } from '../workshop/photos/reencode.js';
import { seedDemo } from '../../demo/seed.js';
import { describeAway, type Readiness } from '../operations/health/routes.js';
import { createServer } from './app.js';
import { readSettings, wholeNumber, type Settings } from './settings.js';
import { instrumentsFor } from '../bench/instruments/reach.js';
import { InstrumentsThread } from '../bench/instruments/threadHandle.js';
import { NightlyWork, type NightlySettings } from '../operations/nightly/nightly.js';
import { ServerMember } from '../base/servers/member.js';
import { Secrets } from '../base/servers/secrets.js';
import { PaperDrawer } from '../base/pdf/drawer.js';
import { PushHub } from '../base/push/hub.js';
import { BenchKeeper } from '../bench/simulated-bench/keeper.js';
import { processClock, systemClock } from '../base/http/clock.js';

declare const LAVACRUM_VERSION: string;

/** ms between attempts to reach the database while it is away */
const RETRY_MS = 1500;

/** Where an older program kept the key that signs: the database takes it over, so that nobody is signed out. */
const oldSecretFile = (dataFolder: string): string => path.join(dataFolder, 'session-secret');

function oldSecret(dataFolder: string): string | null {
  const file = oldSecretFile(dataFolder);
  return existsSync(file) ? readFileSync(file, 'utf8').trim() || null : null;
}

/** Migrates, seeds and joins the other servers as soon as the database answers, however long that takes. */
async function prepare(settings: Settings, member: ServerMember, readiness: Readiness, log: Logger, here: string): Promise<void> {
  while (!readiness.ready) {
    try {
      await migrateDatabase(settings.ownerUrl, migrationsFolder(here));
      if (settings.demo) await seedDemoOnce(settings);
      await member.join();
      rmSync(oldSecretFile(settings.dataFolder), { force: true });
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

function memberOf({ name, secrets, dataFolder }: Settings, database: Database, log: Logger): ServerMember {
  return new ServerMember({ name, version: LAVACRUM_VERSION, secrets, oldSecret: oldSecret(dataFolder) }, database, new Secrets(), log);
}

/** Ends the process once what was asked is answered and the others know that this server leaves. */
function endAfter(listener: HttpServer, left: Promise<void>, pool: Pool): void {
  listener.close(() => void left.then(() => pool.end()).finally(() => process.exit(0)));
  listener.closeIdleConnections();
  // a browser may keep a connection open; its last answer is out by then
  setTimeout(() => process.exit(0), 3000).unref();
}

function nightlySettings({ databaseUrl, mail, ownerUrl, backupsKept: kept, dataFolder }: Settings, ownOrigin: string): NightlySettings {
  return { databaseUrl, ...mail, ownOrigin, backup: kept > 0 ? { ownerUrl, folder: backupFolder(dataFolder), kept } : null };
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
    { name: settings.name, databaseUrl: settings.databaseUrl, ...settings.mqtt },
    path.join(here, 'instruments.mjs'),
    log,
  );
  const database = openDatabase(pool);
  const member = memberOf(settings, database, log);
  const keeper = new BenchKeeper(log);
  const drawer = new PaperDrawer(path.join(here, 'papers.mjs'));
  const ownOrigin = `http://localhost:${settings.port}`;
  const nightly = new NightlyWork(nightlySettings(settings, ownOrigin), database, clock, log, member);
  push.onCommand = (command) => instruments.command(command);
  const webFolder = path.join(here, 'web');
  const app = createServer({
    pool,
    clock,
    log,
    version: LAVACRUM_VERSION,
    secrets: member.secrets,
    readiness,
    webFolder: existsSync(webFolder) ? webFolder : null,
    behindProxy: settings.behindProxy,
    push,
    instruments: instrumentsFor(instruments, keeper),
    sendLetter: (letter) => nightly.sendLetter(letter),
    ownOrigin,
    drawPaper: drawer.draw,
    photoQuotaBytes: wholeNumber('LAVACRUM_PHOTOS_MB', PHOTO.quotaBytes / 1e6, 1e6) * 1e6,
    servers: () => ({ here: member.name, servers: member.servers }),
    partsOf: () => ({
      queue: nightly.reached ? 'ok' : 'away',
      push: push.listens ? 'ok' : 'away',
      instruments: instruments.reached ? 'ok' : 'away',
      disk: freeBytes(settings.dataFolder) < LOW_DISK_BYTES ? 'low' : 'ok',
      backup: nightly.backupState,
      servers: member.servers.some(({ isSilent }) => isSilent) ? 'silent' : 'ok',
    }),
  });
  const listener = app.listen(settings.port, settings.host, (error?: Error) => {
    if (error) {
      log.error({ code: (error as Error & { code?: string }).code }, `cannot listen on port ${settings.port}`);
      process.exitCode = 1;
      void pool.end();
      return;
    }
    log.info({ port: (listener.address() as AddressInfo).port }, 'listening');
    // each of the three tries again by itself until it stands; none waits for another
    void prepare(settings, member, readiness, log, here)
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
    drawer.close();
    void instruments.close();
    void nightly.close();
    void push.close();
    endAfter(listener, member.leave(), pool);
  };
  process.on('SIGTERM', stop);
  process.on('SIGINT', stop);
}

start();
