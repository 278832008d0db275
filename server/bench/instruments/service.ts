import { keepReport, readReport, readSeen } from '../simulated-bench/reports.js';
import { randomBytes } from 'node:crypto';
import { hostname } from 'node:os';
import { setTimeout as sleep } from 'node:timers/promises';
import mqtt from 'mqtt';
import type { Brokers } from '../../../core/bench/instruments/answers.js';
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
import { inWorkshop, type Database } from '../../base/database/client.js';
import type { Clock } from '../../base/http/clock.js';
import { pushNotice, type BenchTelling } from '../../base/push/notices.js';
import { NO_BROKERS, Voice } from '../../base/servers/voice.js';
import { verifyAccess } from './access.js';
import { AutoEntries } from './autoEntries.js';
import { startBroker, type Broker } from './broker.js';
import { Guarding } from './guarding.js';
import { Ingest, markAllOffline, pruneReadings } from './ingest.js';

export interface InstrumentSettings {
  readonly databaseUrl: string;
  /** this server among those on the database */
  readonly name: string;
  /** an outside broker, or null for the embedded one */
  readonly mqttUrl: string | null;
  /** where devices reach the embedded broker; null: where it listens */
  readonly address: string | null;
  readonly host: string;
  /** 0: any free port, for tests */
  readonly port: number;
}

const RETRY_MS = 3000;
/** ms between looks for readings that are old enough to go */
const PRUNE_MS = 6 * 3_600_000;
const OWN_NAME = 'lavacrum-server';
/** ms that a word of farewell may take */
const FAREWELL_MS = 500;
/** addresses that say "on every network of this machine": devices need its name */
const EVERYWHERE: ReadonlySet<string> = new Set(['0.0.0.0', '::']);

function withoutAccess(mqttUrl: string): string {
  const url = new URL(mqttUrl);
  url.username = '';
  url.password = '';
  return url.href;
}

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
  private timer: NodeJS.Timeout | null = null;
  private pruning: NodeJS.Timeout | null = null;
  private closed = false;
  private heldElsewhere = false;
  private readonly voice: Voice;
  private readonly guarding: Guarding;
  private known = NO_BROKERS;

  constructor(
    private readonly settings: InstrumentSettings,
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly log: Logger,
  ) {
    this.voice = new Voice(
      settings,
      () => void this.lost(),
      (brokers) => {
        this.known = brokers;
        this.guarding.at([...(brokers.url === null ? [] : [brokers.url]), ...brokers.others]);
      },
    );
    this.guarding = new Guarding(clock, (topic, payload) => this.client?.publish(topic, payload, { qos: 1, retain: true }));
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

  /** Where devices connect, and where else to try; an outside broker without the name and password that are the servers' own. */
  get brokers(): Brokers {
    if (this.settings.mqttUrl !== null) return { url: withoutAccess(this.settings.mqttUrl), others: [] };
    const own = this.broker ? this.ownAddress(this.broker.port) : null;
    return own === null ? this.known : { url: own, others: this.known.others.filter((each) => each !== own) };
  }

  /** Where a simulated bench on this machine connects, in the order in which it tries. */
  get reach(): readonly string[] {
    if (this.settings.mqttUrl !== null) return [this.settings.mqttUrl];
    const { url, others } = this.brokers;
    const local = this.broker ? [this.localAddress(this.broker.port)] : [];
    return url === null ? [] : [...new Set([...local, url, ...others])];
  }

  /** from this machine itself; a broker on one of its addresses listens on that alone */
  private localAddress(port: number): string {
    const { host } = this.settings;
    return `mqtt://${EVERYWHERE.has(host) ? '127.0.0.1' : host}:${port}`;
  }

  private ownAddress(port: number): string | null {
    const { address, host } = this.settings;
    if (address !== null) return address;
    return port === 0 ? null : `mqtt://${EVERYWHERE.has(host) ? hostname() : host}:${port}`;
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
    const got = await this.voice.take(this.embedded ? this.ownAddress(this.settings.port) : null);
    this.heldElsewhere = !got;
    return got;
  }

  /** The database went away, or gave the voice to another server. */
  private async lost(): Promise<void> {
    if (this.closed) return;
    await this.letGo();
    this.timer = setTimeout(() => void this.start(), RETRY_MS);
    this.timer.unref();
  }

  private async connect(): Promise<void> {
    // what was known of benches when this server spoke last is another's story by now
    this.auto.beginAnew();
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
        verify: async (workshopId, benchId, secret) => {
          const found = await verifyAccess(this.database, workshopId, benchId, secret);
          if (found !== null) this.guarding.meet(workshopId, benchId);
          return found;
        },
      });
      await this.voice.tellBroker(this.ownAddress(this.broker.port) as string);
    }
    const client = mqtt.connect(this.settings.mqttUrl ?? this.localAddress(this.broker?.port ?? 0), {
      clientId: `${OWN_NAME}-${randomBytes(4).toString('hex')}`,
      ...(this.embedded ? { username: this.own.name, password: this.own.password } : {}),
      reconnectPeriod: 1000,
    });
    this.client = client;
    client.on('error', (error) => this.trouble('the broker is not reached', error));
    client.on('message', (topic, payload) => this.hear(topic, payload.toString()));
    client.subscribe([ALL_STATES, ALL_READINGS, ALL_SEEN, ALL_REPORTS], { qos: 1 });
    await new Promise<void>((resolve) => client.once('connect', () => resolve()));
    this.guarding.begin();
    this.log.info({ embedded: this.embedded, port: this.broker?.port }, 'instruments may connect');
  }

  private async prune(): Promise<void> {
    await pruneReadings(this.database, this.clock.now()).catch((error: unknown) => this.trouble('old readings were not removed', error));
  }

  private hear(topic: string, payload: string): void {
    const bench = benchOfTopic(topic);
    if (!bench) return;
    const { workshopId, benchId } = bench;
    this.guarding.meet(workshopId, benchId);
    const instrument = readTopic(topic);
    if (instrument) return this.ingest.take(instrument, payload);
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
    const { client, broker } = this;
    if (this.pruning !== null) clearInterval(this.pruning);
    this.pruning = null;
    this.guarding.end();
    // an outside broker keeps this word for whoever listens; with the own one devices see for themselves
    if (client?.connected && !this.embedded) await Promise.race([client.endAsync(), sleep(FAREWELL_MS)]).catch(() => undefined);
    this.client = null;
    this.broker = null;
    await client?.endAsync(true).catch(() => undefined);
    await broker?.close().catch(() => undefined);
    await this.voice.drop();
  }

  async close(): Promise<void> {
    this.closed = true;
    if (this.timer !== null) clearTimeout(this.timer);
    await this.ingest.settled();
    await this.letGo();
  }
}
