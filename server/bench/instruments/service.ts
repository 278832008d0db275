import { keepReport, readReport, readSeen } from '../simulated-bench/reports.js';
import { randomBytes } from 'node:crypto';
import mqtt from 'mqtt';
import pg from 'pg';
import type { Logger } from 'pino';
import {
  ALL_READINGS,
  ALL_REPORTS,
  ALL_SEEN,
  ALL_STATES,
  benchOfTopic,
  benchTopic,
  readTopic,
} from '../../../core/bench/instruments/topics.js';
import { inWorkshop, settingsOf, type Database } from '../../base/database/client.js';
import type { Clock } from '../../base/http/clock.js';
import { pushNotice, type BenchTelling } from '../../base/push/notices.js';
import { verifyAccess } from './access.js';
import { AutoEntries } from './autoEntries.js';
import { startBroker, type Broker } from './broker.js';
import { Ingest, markAllOffline, pruneReadings } from './ingest.js';

export interface InstrumentSettings {
  readonly databaseUrl: string;
  /** an outside broker, or null for the embedded one */
  readonly mqttUrl: string | null;
  readonly host: string;
  /** 0: any free port, for tests */
  readonly port: number;
}

/** Key of the lock that one server process holds while it speaks with the instruments. */
const LOCK = 0x1a7ac;
const RETRY_MS = 3000;
/** ms between looks for readings that are old enough to go */
const PRUNE_MS = 6 * 3_600_000;
const OWN_NAME = 'lavacrum-server';

/**
 * The one process of possibly several that speaks with the instruments: it holds a lock in the database, runs the
 * embedded broker or joins an outside one, keeps what comes and passes commands on. When it dies, the database frees
 * the lock and another takes over.
 */
export class InstrumentService {
  private readonly own = { name: OWN_NAME, password: randomBytes(18).toString('base64url') };
  private readonly ingest: Ingest;
  private readonly auto: AutoEntries;
  private broker: Broker | null = null;
  private client: mqtt.MqttClient | null = null;
  private lock: pg.Client | null = null;
  private timer: NodeJS.Timeout | null = null;
  private pruning: NodeJS.Timeout | null = null;
  private closed = false;
  private heldElsewhere = false;

  constructor(
    private readonly settings: InstrumentSettings,
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly log: Logger,
  ) {
    this.auto = new AutoEntries(database, clock, log, (workshopId, benchId, topic, payload) =>
      this.command({ workshopId, benchId, topic, payload }),
    );
    this.ingest = new Ingest(
      database,
      clock,
      (kept) => this.auto.follow(kept),
      (error) => this.trouble('what a bench sent could not be kept', error),
    );
  }

  /** Where devices and simulated benches connect. null: not listening. */
  get url(): string | null {
    if (this.settings.mqttUrl !== null) return this.settings.mqttUrl;
    const port = this.broker?.port ?? (this.settings.port === 0 ? null : this.settings.port);
    return port === null ? null : `mqtt://127.0.0.1:${port}`;
  }

  /** whether instruments are reached, by this process or by the one that holds the lock */
  get reached(): boolean {
    return this.client?.connected === true || this.heldElsewhere;
  }

  get embedded(): boolean {
    return this.settings.mqttUrl === null;
  }

  /** Tries to become the one, and tries again until it is. Never fails: the app works without instruments. */
  async start(): Promise<void> {
    if (this.closed) return;
    try {
      if (await this.takeLock()) {
        await this.connect();
        return;
      }
    } catch (error) {
      this.trouble('instruments are not reached; trying again', error);
      await this.letGo();
    }
    if (this.closed) return;
    this.timer = setTimeout(() => void this.start(), RETRY_MS);
    this.timer.unref();
  }

  private async takeLock(): Promise<boolean> {
    const client = new pg.Client({
      connectionString: this.settings.databaseUrl,
      application_name: 'lavacrum instruments',
      keepAlive: true,
      options: settingsOf(this.settings.databaseUrl, true),
    });
    client.on('error', () => void this.lost(client));
    client.on('end', () => void this.lost(client));
    await client.connect();
    const { rows } = await client.query<{ got: boolean }>('select pg_try_advisory_lock($1) as got', [LOCK]);
    this.heldElsewhere = rows[0]?.got !== true;
    if (!rows[0]?.got) {
      client.removeAllListeners('end');
      await client.end();
      return false;
    }
    this.lock = client;
    return true;
  }

  /** The database went away: another process may hold the lock by now. */
  private async lost(client: pg.Client): Promise<void> {
    if (this.closed || this.lock !== client) return;
    this.lock = null;
    await this.letGo();
    this.timer = setTimeout(() => void this.start(), RETRY_MS);
    this.timer.unref();
  }

  private async connect(): Promise<void> {
    await markAllOffline(this.database);
    await this.prune();
    this.pruning = setInterval(() => void this.prune(), PRUNE_MS);
    this.pruning.unref();
    if (this.embedded) {
      this.broker = await startBroker({
        host: this.settings.host,
        port: this.settings.port,
        log: this.log,
        own: this.own,
        verify: (workshopId, benchId, secret) => verifyAccess(this.database, workshopId, benchId, secret),
      });
    }
    const client = mqtt.connect(this.url as string, {
      clientId: `${OWN_NAME}-${randomBytes(4).toString('hex')}`,
      ...(this.embedded ? { username: this.own.name, password: this.own.password } : {}),
      reconnectPeriod: 1000,
    });
    this.client = client;
    client.on('error', (error) => this.trouble('the broker is not reached', error));
    client.on('message', (topic, payload) => this.hear(topic, payload.toString()));
    client.subscribe([ALL_STATES, ALL_READINGS, ALL_SEEN, ALL_REPORTS], { qos: 1 });
    await new Promise<void>((resolve) => client.once('connect', () => resolve()));
    this.log.info({ embedded: this.embedded, port: this.broker?.port }, 'instruments may connect');
  }

  private async prune(): Promise<void> {
    await pruneReadings(this.database, this.clock.now()).catch((error: unknown) => this.trouble('old readings were not removed', error));
  }

  private hear(topic: string, payload: string): void {
    const instrument = readTopic(topic);
    if (instrument) return this.ingest.take(instrument, payload);
    const bench = benchOfTopic(topic);
    if (!bench) return;
    const { workshopId, benchId } = bench;
    if (bench.rest[0] === 'seen') {
      const seen = readSeen(payload);
      if (seen)
        this.ingest.inTurn(bench, () =>
          inWorkshop(this.database, workshopId, (scope) => pushNotice(scope, workshopId, { kind: 'seen', benchId, ...seen })),
        );
    } else if (bench.rest[0] === 'report') {
      const report = readReport(payload);
      if (report) this.ingest.inTurn(bench, () => keepReport(this.database, workshopId, benchId, report));
    }
  }

  /** A command from any server process, after its transaction was committed. */
  command(command: { workshopId: string; benchId: string } & BenchTelling): void {
    const { workshopId, benchId, topic, payload } = command;
    if (command.topic === 'supply/set') this.auto.commanded(benchId, command.payload.on, Date.now());
    this.publish(`${benchTopic(workshopId, benchId)}/${topic}`, payload);
  }

  private publish(topic: string, payload: object): void {
    this.client?.publish(topic, JSON.stringify(payload), { qos: 1 });
  }

  private trouble(message: string, error: unknown): void {
    if (!this.closed) this.log.warn({ name: error instanceof Error ? error.name : typeof error, code: (error as { code?: string }).code }, message); // prettier-ignore
  }

  private async letGo(): Promise<void> {
    const { client, broker, lock } = this;
    if (this.pruning !== null) clearInterval(this.pruning);
    this.pruning = null;
    this.client = null;
    this.broker = null;
    this.lock = null;
    await client?.endAsync(true).catch(() => undefined);
    await broker?.close().catch(() => undefined);
    await lock?.end().catch(() => undefined);
  }

  async close(): Promise<void> {
    this.closed = true;
    if (this.timer !== null) clearTimeout(this.timer);
    await this.ingest.settled();
    await this.letGo();
  }
}
