import type { HistoryEntry, HistoryPiece } from '../../core/workshop/machines/answers.js';
import { usualLoop } from '../../core/machine/catalogue/testLoops.js';
import { randomUUID } from 'node:crypto';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import pg from 'pg';
import { pino } from 'pino';
import { DEFAULT_SCHOOLS } from '../../core/physics/leak-testing/schools.js';
import { hashPassword } from '../../server/workshop/people/password.js';
import type { SignInLimit } from '../../server/workshop/people/signInLimits.js';
import { createWorkshop } from '../../server/workshop/people/workshop.js';
import { openDatabase, openPool, type Database } from '../../server/base/database/client.js';
import { createServer } from '../../server/app/app.js';
import type { Clock } from '../../server/base/http/clock.js';
import type { Instruments, OneLetter } from '../../server/base/http/context.js';
import { NO_INSTRUMENTS } from '../../server/bench/instruments/none.js';
import { routesOf, type Route } from '../../server/base/http/routeList.js';
import { Secrets } from '../../server/base/servers/secrets.js';
import { PushHub } from '../../server/base/push/hub.js';
import { createDatabase, urlOfDatabase } from '../../server/operations/cluster/cluster.js';

const PASSWORD = 'a long password';
/** the instant at which the tests' clock begins */
const FIRST_MS = Date.parse('2026-03-10T09:00:00Z');

/** Makes the instruments of a test's server, and takes its commands. */
type InstrumentsFor = (databaseUrl: string, pool: pg.Pool, clock: Clock) => { instruments: Instruments; onCommand: PushHub['onCommand'] };
let passwordHash: string | undefined;

export interface Answer<T = Record<string, never>> {
  readonly status: number;
  readonly body: T;
  readonly headers: Headers;
}

/** of whatever server of these tests logged last: a failure on a server is told with what it said itself */
let lastLogged = '';

/** One server on a database of its own, with a clock that tests move. */
export class TestBench {
  nowMs = FIRST_MS;
  readonly logged: string[] = [];
  /** letters that were handed over at once */
  readonly letters: OneLetter[] = [];

  private constructor(
    readonly url: string,
    /** as the owner of the tables: sees every workshop */
    readonly pool: pg.Pool,
    /** as the server itself */
    readonly serverPool: pg.Pool,
    readonly database: Database,
    private readonly server: Server,
    readonly push: PushHub,
    readonly databaseName: string,
    readonly routes: readonly Route[],
  ) {}

  static async open(
    options: {
      signInLimit?: SignInLimit;
      webFolder?: string;
      instruments?: InstrumentsFor;
      clock?: Clock;
      template?: string;
      behindProxy?: boolean;
      photoQuotaBytes?: number;
      /** another server on the same database */
      beside?: TestBench;
      secrets?: Secrets;
    } = {},
  ): Promise<TestBench> {
    const adminUrl = process.env.LAVACRUM_TEST_DATABASE as string;
    const name = options.beside?.databaseName ?? `test_${randomUUID().replaceAll('-', '')}`;
    if (!options.beside) await createDatabase(urlOfDatabase(adminUrl, 'postgres'), name, options.template ?? 'lavacrum_template');
    const serverUrl = urlOfDatabase(process.env.LAVACRUM_TEST_SERVER as string, name);
    const pool = openPool(serverUrl, () => undefined);
    const owner = new pg.Pool({ connectionString: urlOfDatabase(adminUrl, name), max: 2 });
    owner.on('error', () => undefined);
    const holder: { bench?: TestBench } = {};
    const write = (line: string): void => {
      lastLogged = line;
      holder.bench?.logged.push(line);
    };
    const log = pino({ level: 'error' }, { write });
    const push = new PushHub(serverUrl, log);
    const clock = options.clock ?? { now: () => new Date(holder.bench?.nowMs ?? FIRST_MS) };
    const parts = options.instruments?.(serverUrl, pool, clock);
    push.onCommand = parts?.onCommand ?? null;
    const app = createServer({
      pool,
      clock,
      log,
      version: 'test',
      secrets: options.secrets ?? new Secrets(['not a secret']),
      readiness: { ready: true, reason: '' },
      webFolder: options.webFolder ?? null,
      behindProxy: options.behindProxy ?? false,
      ...(options.photoQuotaBytes === undefined ? {} : { photoQuotaBytes: options.photoQuotaBytes }),
      push,
      instruments: parts?.instruments ?? NO_INSTRUMENTS,
      sendLetter: async (letter) => void holder.bench?.letters.push(letter),
      ownOrigin: 'http://localhost:4180',
      signInLimit: options.signInLimit ?? { tries: 1000, accountTries: 1000, addressTries: 10_000, windowMs: 60_000 },
    });
    const server = await new Promise<Server>((resolve) => {
      const listening = app.listen(0, '127.0.0.1', () => resolve(listening));
    });
    holder.bench = new TestBench(
      `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
      owner,
      pool,
      openDatabase(pool),
      server,
      push,
      name,
      routesOf(app),
    );
    await push.listen();
    return holder.bench;
  }

  async close(): Promise<void> {
    await this.push.close();
    await new Promise((resolve) => this.server.close(resolve));
    await this.serverPool.end();
    await this.pool.end();
  }

  wait(seconds: number): void {
    this.nowMs += seconds * 1000;
  }

  /** A workshop of its own with somebody signed in as its lead. */
  async workshop(name = 'Workshop', headers: Record<string, string> = {}): Promise<Visitor> {
    passwordHash ??= await hashPassword(PASSWORD);
    const email = `${randomUUID()}@workshop.example`;
    const { workshopId } = await this.database.transaction((scope) =>
      createWorkshop(scope, {
        workshopName: name,
        timeZone: 'Europe/Lisbon',
        personName: `Lead of ${name}`,
        email,
        passwordHash: passwordHash as string,
      }),
    );
    const visitor = new Visitor(this.url, headers);
    Object.assign(visitor, { email, workshopId });
    await visitor.signIn(email);
    return visitor;
  }

  get databaseUrl(): string {
    return urlOfDatabase(process.env.LAVACRUM_TEST_SERVER as string, this.databaseName);
  }

  /** Rows of a table as the owner of the database sees them, over all workshops. */
  async count(table: string): Promise<number> {
    const { rows } = await this.pool.query<{ n: string }>(`select count(*) as n from ${table}`);
    return Number(rows[0]?.n);
  }
}

/** A browser without a screen: keeps its cookies and its token. */
export class Visitor {
  readonly email: string = '';
  readonly workshopId: string = '';
  token = '';
  private readonly jar = new Map<string, string>();

  constructor(
    readonly url: string,
    private readonly headers: Record<string, string> = {},
  ) {}

  get cookie(): string {
    return [...this.jar].map(([name, value]) => `${name}=${value}`).join('; ');
  }

  set cookie(text: string) {
    for (const each of text.split('; ')) this.jar.set(each.slice(0, each.indexOf('=')), each.slice(each.indexOf('=') + 1));
  }

  async send<T = Record<string, never>>(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<Answer<T>> {
    const response = await fetch(`${this.url}${path}`, {
      method,
      headers: {
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...(this.cookie ? { cookie: this.cookie } : {}),
        ...(this.token ? { 'x-lavacrum-token': this.token } : {}),
        ...this.headers,
        ...headers,
      },
      body: body === undefined ? undefined : typeof body === 'string' ? body : JSON.stringify(body),
    });
    for (const set of response.headers.getSetCookie()) this.cookie = set.split(';')[0] as string;
    const text = await response.text();
    if (response.status === 500) process.stderr.write(`${method} ${path}: ${lastLogged}\n`);
    return { status: response.status, body: (text.startsWith('{') ? JSON.parse(text) : { text }) as T, headers: response.headers };
  }

  /** As it goes over the wire, and comes back. */
  async raw(method: string, path: string, body?: string, headers: Record<string, string> = {}): Promise<{ status: number; text: string }> {
    const response = await fetch(`${this.url}${path}`, {
      method,
      headers: {
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        cookie: this.cookie,
        'x-lavacrum-token': this.token,
        ...headers,
      },
      body,
    });
    return { status: response.status, text: await response.text() };
  }

  get = <T = Record<string, never>>(path: string): Promise<Answer<T>> => this.send<T>('GET', `/api${path}`);
  post = <T = Record<string, never>>(path: string, body: unknown, key?: string): Promise<Answer<T>> =>
    this.send<T>('POST', `/api${path}`, body, key ? { 'idempotency-key': key } : {});
  put = <T = Record<string, never>>(path: string, body: unknown): Promise<Answer<T>> => this.send<T>('PUT', `/api${path}`, body);

  delete = <T = Record<string, never>>(path: string): Promise<Answer<T>> => this.send<T>('DELETE', `/api${path}`);

  async signIn(email: string, password = PASSWORD): Promise<Answer<{ token: string }>> {
    const answer = await this.post<{ token: string }>('/session', { email, password });
    if (answer.status === 201) this.token = answer.body.token;
    return answer;
  }

  /** Somebody else of the same workshop, signed in. */
  async colleague(role: 'technician' | 'front-desk' | 'lead'): Promise<Visitor> {
    const email = `${randomUUID()}@colleague.example`;
    await this.post('/people', { name: 'Tess', email, role, password: PASSWORD });
    const other = new Visitor(this.url);
    Object.assign(other, { email, workshopId: this.workshopId });
    await other.signIn(email);
    return other;
  }

  async owner(name = 'Ada Fernwick'): Promise<string> {
    return (
      await this.post<{ id: string }>('/owners', { name, email: null, phone: '+351 555 123', channel: 'phone', note: '', policy: null })
    ).body.id;
  }

  async system(name = 'Tower', ownerId?: string): Promise<string> {
    const owner = ownerId ?? (await this.owner());
    return (
      await this.post<{ id: string }>('/systems', {
        ownerId: owner,
        name,
        caseText: '',
        builtBy: '',
        hoursPerDay: null,
        policy: null,
        note: '',
      })
    ).body.id;
  }

  /** What happened to a machine, the newest piece. */
  async history(systemId: string): Promise<HistoryEntry[]> {
    return (await this.get<HistoryPiece>(`/systems/${systemId}/history`)).body.entries;
  }

  async coolant(more: Record<string, unknown> = {}): Promise<string> {
    const product = {
      name: `Clear ${randomUUID().slice(0, 6)}`,
      coolantClass: 'clear',
      colour: '#7fb8c9',
      form: 'ready-mix',
      targetFraction: null,
      bottleMl: 1000,
      sheetLifeMonths: null,
      ...more,
    };
    return (await this.post<{ id: string }>('/coolants', product)).body.id;
  }

  async loop(systemId: string, coolantProductId: string | null = null): Promise<{ id: string; version: number }> {
    return (
      await this.post<{ id: string; version: number }>('/loops', { systemId, name: 'Main loop', coolantProductId, file: usualLoop() })
    ).body;
  }

  run(
    loopId: string,
    schools: Record<string, unknown> = {},
    benchId: string | null = null,
  ): Promise<Answer<{ run: { id: string; procedure: never } }>> {
    return this.post('/runs', { loopId, benchId, schools: { ...DEFAULT_SCHOOLS, wet: 'ten-minutes', ...schools } });
  }

  entry = <T = { event: { id: string; seq: number } }>(
    runId: string,
    body: object,
    id: string = randomUUID(),
    at?: string,
  ): Promise<Answer<T>> => this.post<T>(`/runs/${runId}/events`, { id, ...(at ? { at } : {}), body });
}

/** The message and place of a refusal. */
export const errorOf = (
  answer: Answer<unknown>,
): { code: string; message: string; path?: string; fields?: { path: string }[] } & Record<string, unknown> =>
  (answer.body as { error: { code: string; message: string } }).error;
