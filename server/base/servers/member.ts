import { setTimeout as sleep } from 'node:timers/promises';
import { sql } from 'drizzle-orm';
import type { Logger } from 'pino';
import type { Server } from '../../../core/base/health/servers.js';
import type { Database } from '../database/client.js';
import { OwnDuties, type DutyName } from './duties.js';
import { firstKey, readKeys } from './keys.js';
import type { Secrets } from './secrets.js';

/** ms between two signs of life; as late as that a server learns of a new key */
const BEAT_MS = 5000;
/** s after which a server that said nothing counts as silent, and as gone: then it is forgotten */
const SILENT_S = 30;
const GONE_S = 86_400;

export interface MemberSettings {
  /** the same after a restart, and another one on every server */
  readonly name: string;
  readonly version: string;
  /** keys that a setting brings; null: the database keeps them */
  readonly secrets: readonly string[] | null;
  /** the key of an older program, which lay in a file: nobody is signed out by the change */
  readonly oldSecret: string | null;
}

/**
 * One of the servers on a database: says that it is there, and knows what they share, keys above all. All instants are the
 * database's own, so that clocks of machines do not matter.
 */
export class ServerMember extends OwnDuties {
  private timer: NodeJS.Timeout | null = null;
  private beating: Promise<void> = Promise.resolve();
  private closed = false;
  private known: readonly Server[] = [];

  constructor(
    private readonly settings: MemberSettings,
    private readonly database: Database,
    readonly secrets: Secrets,
    private readonly log: Logger,
  ) {
    super();
    if (settings.secrets) secrets.replace(settings.secrets);
  }

  /** Says that it is there, learns the keys, and goes on saying it. @throws where the database is away */
  async join(): Promise<void> {
    const { name, version, secrets, oldSecret } = this.settings;
    const { rows: namesake } = await this.database.execute(
      sql`select 1 from server.member where name = ${name} and seen_at > now() - make_interval(secs => ${(2 * BEAT_MS) / 1000})`,
    );
    // a copied settings file: neither would be missed while the other says that it is there
    if (namesake.length > 0)
      this.log.warn(
        { server: name },
        'a server of this name was here a moment ago; unless it was this one, give each its own LAVACRUM_NAME',
      );
    await this.database.execute(sql`
      insert into server.member (name, version) values (${name}, ${version})
      on conflict (name) do update set version = excluded.version, started_at = now(), seen_at = now(), voice_at = null`);
    if (secrets === null) await firstKey(this.database, oldSecret);
    await this.beat();
    this.timer = setInterval(() => {
      this.beating = this.beat().catch((error: unknown) =>
        this.log.warn({ name: nameOf(error) }, 'this server could not say that it is there'),
      );
    }, BEAT_MS);
    this.timer.unref();
  }

  /** Says that it is there, and learns what the others told meanwhile. */
  async beat(): Promise<void> {
    await this.database.execute(sql`
      insert into server.member (name, version) values (${this.settings.name}, ${this.settings.version}) on conflict (name) do update set seen_at = now()`);
    await this.database.execute(sql`delete from server.member where seen_at < now() - make_interval(secs => ${GONE_S})`);
    if (this.settings.secrets === null) this.secrets.replace(await readKeys(this.database));
    this.known = await serversOf(this.database);
    const { rows } = await this.database.execute<{ name: DutyName; done_at: string | null; failed_at: string | null }>(
      sql`select name, done_at, failed_at from server.duty`,
    );
    for (const { name, done_at, failed_at } of rows) this.told.set(name, { doneAt: instantOf(done_at), failedAt: instantOf(failed_at) });
  }

  /** All of them as they were a moment ago. */
  get servers(): readonly Server[] {
    return this.known;
  }

  get name(): string {
    return this.settings.name;
  }

  override async note(name: DutyName, outcome: 'done' | 'failed', at: Date): Promise<void> {
    await super.note(name, outcome, at);
    const column = sql.identifier(outcome === 'done' ? 'done_at' : 'failed_at');
    await this.database
      .execute(
        sql`
      insert into server.duty (name, by, ${column}) values (${name}, ${this.settings.name}, ${at.toISOString()})
      on conflict (name) do update set by = excluded.by, ${column} = excluded.${column}`,
      )
      // what was done is done, whether the others hear of it or not
      .catch((error: unknown) => this.log.warn({ name: nameOf(error) }, 'the other servers could not be told'));
  }

  /** It goes on purpose: nobody misses it. */
  async leave(): Promise<void> {
    if (this.closed) return;
    this.closed = true;
    if (this.timer === null) return;
    clearInterval(this.timer);
    await this.beating;
    const gone = this.database.execute(sql`delete from server.member where name = ${this.settings.name}`).catch(() => undefined);
    // a database that is away keeps no server from ending
    await Promise.race([gone, sleep(1000, undefined, { ref: false })]);
  }
}

const nameOf = (error: unknown): string => (error instanceof Error ? error.name : 'unknown');
const instantOf = (text: string | null): Date | null => (text === null ? null : new Date(text));

/** Servers on a database; the one that speaks with the instruments first. */
async function serversOf(database: Database): Promise<readonly Server[]> {
  const { rows } = await database.execute<{ name: string; version: string; broker: string | null; speaks: boolean; silent_s: number }>(sql`
    select name, version, broker, voice_at is not null as speaks, extract(epoch from now() - seen_at)::float8 as silent_s
    from server.member order by voice_at is null, name`);
  return rows.map(({ silent_s: silentS, ...row }) => ({ ...row, silentS, isSilent: silentS > SILENT_S }));
}
