import { say } from '../../../core/base/words/say.js';
import type { Response } from 'express';
import pg from 'pg';
import type { Logger } from 'pino';
import { settingsOf } from '../database/client.js';
import { DomainError } from '../http/errors.js';
import { PUSH_CHANNEL, type BenchCommand, type PushNotice } from './notices.js';

/** ms between signs of life: proxies close what is silent for a minute */
const HEARTBEAT_MS = 20_000;
/** ms before the next try to listen again, doubled up to the second */
const RETRY_MS = { first: 250, most: 5000 } as const;
/** ms a browser waits before it asks again */
const BROWSER_RETRY_MS = 1000;

/** Whose browser it is. */
export interface WatchedBy {
  readonly workshopId: string;
  readonly personId: string;
  readonly sessionId: string;
}

interface Watcher extends WatchedBy {
  readonly response: Response;
}

/** streams of one session (one a tab), and of this process; beyond the first the oldest ends, beyond the second nobody is let in */
export const STREAMS = { session: 8, process: 2000 } as const;

/**
 * One listening database connection a process, outside the pool, and the browsers that watch. After a gap in listening
 * every watcher is told to fetch anew: what was notified meanwhile is lost to it otherwise.
 */
export class PushHub {
  private readonly watchers = new Set<Watcher>();
  private client: pg.Client | null = null;
  private closed = false;
  private retryMs: number = RETRY_MS.first;
  private timer: NodeJS.Timeout | null = null;
  private readonly heartbeat: NodeJS.Timeout;
  /** called with each command for a bench */
  onCommand: ((command: BenchCommand & { workshopId: string }) => void) | null = null;

  constructor(
    private readonly databaseUrl: string,
    private readonly log: Logger,
  ) {
    this.heartbeat = setInterval(() => void this.beat(), HEARTBEAT_MS);
    this.heartbeat.unref();
  }

  /** A sign of life to everybody whose session still is one; the others are shown out, whatever ended it, on whichever server. */
  async beat(): Promise<void> {
    const ended = await this.endedSessions().catch(() => new Set<string>());
    for (const { sessionId, response } of this.watchers)
      if (ended.has(sessionId)) response.end();
      else response.write(': here\n\n');
  }

  private async endedSessions(): Promise<ReadonlySet<string>> {
    const watched = [...this.watchers];
    if (!this.client || watched.length === 0) return new Set();
    const { rows } = await this.client.query<{ sid: string }>(
      `select s.sid from session s join person p on p.id = (s.sess->'signedIn'->>'personId')::uuid
       where s.sid = any($1) and s.expire > now() and p.active`,
      [watched.map(({ sessionId }) => sessionId)],
    );
    const alive = new Set(rows.map(({ sid }) => sid));
    return new Set(watched.map(({ sessionId }) => sessionId).filter((sid) => !alive.has(sid)));
  }

  /** Somebody signed out: what is open in other tabs ends at once. */
  endSession(sessionId: string): void {
    for (const watcher of this.watchers) if (watcher.sessionId === sessionId) watcher.response.end();
  }

  /** Begins to listen. Resolves once it does, or once a first try failed and the next is due. */
  async listen(): Promise<void> {
    if (this.closed) return;
    const client = new pg.Client({
      connectionString: this.databaseUrl,
      application_name: 'lavacrum push',
      keepAlive: true,
      options: settingsOf(this.databaseUrl, true),
    });
    client.on('notification', ({ payload }) => this.spread(payload ?? ''));
    client.on('error', (error) => this.lost(client, error));
    client.on('end', () => this.lost(client, null));
    try {
      await client.connect();
      await client.query(`listen ${PUSH_CHANNEL}`);
      this.client = client;
      this.retryMs = RETRY_MS.first;
      this.tellAll('resync', {});
    } catch (error) {
      this.lost(client, error);
    }
  }

  /** whether what other processes tell arrives here */
  get listens(): boolean {
    return this.client !== null;
  }

  private lost(client: pg.Client, error: unknown): void {
    if (this.closed || this.timer !== null) return;
    client.removeAllListeners();
    client.on('error', () => undefined);
    void client.end().catch(() => undefined);
    this.client = null;
    this.log.warn({ code: (error as { code?: string } | null)?.code }, 'push does not listen; trying again');
    this.timer = setTimeout(() => {
      this.timer = null;
      void this.listen();
    }, this.retryMs);
    this.timer.unref();
    this.retryMs = Math.min(RETRY_MS.most, 2 * this.retryMs);
  }

  private spread(payload: string): void {
    const { workshopId, ...notice } = JSON.parse(payload) as (PushNotice | BenchCommand) & { workshopId: string };
    if (notice.kind === 'bench-command') return this.onCommand?.({ workshopId, ...notice });
    for (const watcher of this.watchers) if (watcher.workshopId === workshopId) write(watcher.response, notice.kind, notice);
  }

  private tellAll(event: string, data: object): void {
    for (const { response } of this.watchers) write(response, event, data);
  }

  /** A browser begins to watch its workshop. It is told to fetch at once: between its page and this moment something may have happened. */
  watch(by: WatchedBy, response: Response): void {
    if (this.watchers.size >= STREAMS.process)
      throw new DomainError('busy', say('Too many pages watch this server; this one asks from time to time.'));
    const same = [...this.watchers].filter(({ sessionId }) => sessionId === by.sessionId);
    same.slice(0, Math.max(0, same.length + 1 - STREAMS.session)).forEach((oldest) => oldest.response.end());
    response.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' });
    response.write(`retry: ${BROWSER_RETRY_MS}\n\n`);
    write(response, 'resync', {});
    const watcher = { ...by, response };
    this.watchers.add(watcher);
    response.on('close', () => this.watchers.delete(watcher));
  }

  async close(): Promise<void> {
    this.closed = true;
    clearInterval(this.heartbeat);
    if (this.timer !== null) clearTimeout(this.timer);
    for (const { response } of this.watchers) response.end();
    this.watchers.clear();
    await this.client?.end().catch(() => undefined);
  }
}

function write(response: Response, event: string, data: object): void {
  response.write(`event: ${event}\ndata: ${JSON.stringify(data)}\n\n`);
}
