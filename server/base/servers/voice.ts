import pg from 'pg';
import type { Brokers } from '../../../core/bench/instruments/answers.js';
import { settingsOf } from '../database/client.js';

/** Key of the lock that one of the servers holds while it speaks with the instruments. */
const LOCK = 0x1a7ac;
/** ms between two words of the one that speaks; after so much silence another one takes its place */
const BEAT_MS = 3000;
const SILENT_S = 15;
/** ms until a word that the database does not answer counts as not said */
const ANSWER_MS = 6000;
/** the database learns within a quarter of a minute that the machine at the other end is gone */
const noticedSoon = '-c tcp_keepalives_idle=5 -c tcp_keepalives_interval=3 -c tcp_keepalives_count=3';

export interface VoiceSettings {
  readonly databaseUrl: string;
  /** this server's name */
  readonly name: string;
}

/** Where none of the servers speaks at this moment, and nobody else may be next. */
export const NO_BROKERS: Brokers = { url: null, others: [] };

/**
 * Which of the servers on a database speaks with the instruments: the one that holds a lock there. It goes with its connection; where a
 * server stands still instead of dying, the others see that it says nothing any more, and the lock is taken from it.
 */
export class Voice {
  private client: pg.Client | null = null;
  private timer: NodeJS.Timeout | null = null;

  constructor(
    private readonly settings: VoiceSettings,
    /** the lock is somebody else's by now */
    private readonly onLost: () => void,
    /** where the brokers are, as was read a moment ago */
    private readonly onBrokers: (brokers: Brokers) => void,
  ) {}

  /**
   * Tries to become the one that speaks.
   * @param broker where devices reach this server's own broker; null: it has none, or does not know yet
   */
  async take(broker: string | null): Promise<boolean> {
    const client = new pg.Client({
      connectionString: this.settings.databaseUrl,
      application_name: 'lavacrum instruments',
      keepAlive: true,
      query_timeout: ANSWER_MS,
      connectionTimeoutMillis: ANSWER_MS,
      options: `${settingsOf(this.settings.databaseUrl, true)} ${noticedSoon}`,
    });
    const gone = (): void => this.lost(client);
    client.on('error', gone);
    client.on('end', gone);
    try {
      await client.connect();
      const { rows } = await client.query<{ got: boolean }>('select pg_try_advisory_lock($1) as got', [LOCK]);
      const got = rows[0]?.got === true;
      await this.say(client, broker, got);
      if (got) {
        this.client = client;
        this.timer = setInterval(() => void this.say(client, null, true).catch(gone), BEAT_MS);
        return true;
      }
      await endSilentOne(client);
    } catch (error) {
      await client.end().catch(() => undefined);
      throw error;
    }
    await client.end().catch(() => undefined);
    return false;
  }

  /** Where devices reach this server's own broker, once it is known. */
  async tellBroker(broker: string): Promise<void> {
    if (this.client) await this.say(this.client, broker, true);
  }

  private async say(client: pg.Client, broker: string | null, speaks: boolean): Promise<void> {
    await client.query(
      `insert into server.member as m (name, broker, voice_at) values ($1, $2, case when $3 then now() end)
       on conflict (name) do update set broker = coalesce(excluded.broker, m.broker), voice_at = excluded.voice_at`,
      [this.settings.name, broker, speaks],
    );
    if (speaks)
      await client.query('update server.member set voice_at = null where voice_at is not null and name <> $1', [this.settings.name]);
    const { rows } = await client.query<{ broker: string; speaks: boolean }>(
      'select broker, voice_at is not null as speaks from server.member where broker is not null order by name',
    );
    const url = rows.find((row) => row.speaks)?.broker ?? null;
    // behind one front they all have its address
    const others = new Set(rows.map((row) => row.broker).filter((each) => each !== url));
    this.onBrokers({ url, others: [...others] });
  }

  private lost(client: pg.Client): void {
    if (this.client !== client) return;
    void this.drop();
    this.onLost();
  }

  /** Lets the lock go, so that another server takes over at once. */
  async drop(): Promise<void> {
    const { client } = this;
    this.client = null;
    if (this.timer !== null) clearInterval(this.timer);
    this.timer = null;
    if (!client) return;
    await client.query('update server.member set voice_at = null where name = $1', [this.settings.name]).catch(() => undefined);
    await client.end().catch(() => undefined);
  }
}

/** A server that holds the lock and says nothing stands still: its connection is ended, and whoever asks next gets the lock. */
async function endSilentOne(client: pg.Client): Promise<void> {
  // as who signed in: a role that was taken on may not end sessions of the login
  await client.query('set role none');
  await client.query(
    `select pg_terminate_backend(l.pid) from pg_locks l
     where l.locktype = 'advisory' and l.objid::bigint = $1 and l.classid = 0 and l.granted and l.database = (select oid from pg_database where datname = current_database())
       and exists (select 1 from server.member where voice_at < now() - make_interval(secs => $2))
       and not exists (select 1 from server.member where voice_at >= now() - make_interval(secs => $2))`,
    [LOCK, SILENT_S],
  );
}
