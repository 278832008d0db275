import path from 'node:path';
import PgBoss from 'pg-boss';
import type { Logger } from 'pino';
import { dayIn } from '../../../core/base/units/calendar.js';
import { workshop } from '../../base/database/tables/people.js';
import { inWorkshop, workshopIds, type Database } from '../../base/database/client.js';
import { openMissingDust } from '../../workshop/due-dates/dust.js';
import { refreshLives } from '../../workshop/learned-lives/refresh.js';
import { redate } from '../../workshop/due-dates/redate.js';
import { freshenLines } from '../../workshop/machine-list/freshLines.js';
import type { Clock } from '../../base/http/clock.js';
import { OwnDuties, type Duties } from '../../base/servers/duties.js';
import { renewKeys } from '../../base/servers/keys.js';
import { pruneAttempts } from '../../base/servers/attempts.js';
import { pruneAnswers } from '../../base/http/idempotency.js';
import { tellLevels } from '../../workshop/owner-door/letters.js';
import { tellDue } from '../../workshop/messages/messages.js';
import type { OneLetter } from '../../base/http/context.js';
import { Post } from '../../workshop/messages/post.js';
import { startStandIn } from '../../workshop/messages/standIn.js';
import { startTextStandIn } from '../../workshop/messages/texts.js';
import { eq } from 'drizzle-orm';
import { setTimeout as sleep } from 'node:timers/promises';
import { makeBackup } from '../backup/archive.js';
import { backupName, backupsIn, keepNewest, madeAtOf } from '../backup/keep.js';
import { QueueDatabase } from './queueDatabase.js';

/** Queues of the work that nobody waits for. Several servers share them: each piece is done once, by one of them. */
export const QUEUES = { redate: 'redate-workshop', tell: 'tell-due', post: 'send-messages', plan: 'nightly', backup: 'backup' } as const;

/** when the night's work begins, on the server's clock */
const NIGHTLY_CRON = '15 3 * * *';
/** a quarter of an hour before it everything is backed up */
const BACKUP_CRON = '45 2 * * *';
/** how often waiting messages are sent */
const POST_CRON = '* * * * *';
/** ms; two nights and some hours: a night that was missed is told */
const BACKUP_OLD_MS = 56 * 3_600_000;
/** ms before the next try to start, doubled up to the second */
const RETRY_MS = { first: 1000, most: 60_000 } as const;

export interface NightlySettings {
  readonly databaseUrl: string;
  /** an outside mail server; null: the stand-in on loopback */
  readonly smtpUrl: string | null;
  readonly sender: string;
  /** an outside gateway for texts to telephones; null or left out: the stand-in on loopback */
  readonly textUrl?: string | null;
  /** where this server is reached on its own machine, for links; left out: at its usual port */
  readonly ownOrigin?: string;
  /** where the night's backup goes, and how many stay; null: none is made */
  readonly backup?: BackupSettings | null;
}

export interface BackupSettings {
  /** a login that sees past row policies */
  readonly ownerUrl: string;
  readonly folder: string;
  readonly kept: number;
}

interface ForWorkshop {
  readonly workshopId: string;
}

/** Work by the clock: dates computed anew, owners told, messages sent. Runs on the database's own queue. */
export class NightlyWork {
  private boss: PgBoss | null = null;
  private queueDatabase: QueueDatabase | null = null;
  private post: Post | null = null;
  private closed = false;
  private readonly startedMs: number;
  private closeStandIns: (() => Promise<void>)[] = [];

  constructor(
    private readonly settings: NightlySettings,
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly log: Logger,
    /** how the backup went on whichever server made it; left out: this one makes all */
    private readonly duties: Duties = new OwnDuties(),
  ) {
    this.startedMs = clock.now().getTime();
  }

  /** Begins, and tries again until it has begun: the app serves without its queue, and dates change with every save as well. */
  async start(): Promise<void> {
    for (let waitMs: number = RETRY_MS.first; !this.closed; waitMs = Math.min(RETRY_MS.most, 2 * waitMs)) {
      try {
        await this.begin();
        return;
      } catch (error) {
        this.log.warn({ name: error instanceof Error ? error.name : 'unknown' }, 'nightly work did not start; trying again');
        await this.letGo();
        await sleep(waitMs, undefined, { ref: false });
      }
    }
  }

  private async begin(): Promise<void> {
    let smtpUrl = this.settings.smtpUrl;
    if (smtpUrl === null) {
      const standIn = await startStandIn(this.database, this.log);
      this.closeStandIns.push(standIn.close);
      smtpUrl = `smtp://127.0.0.1:${standIn.port}?ignoreTLS=true`;
    }
    let { textUrl = null } = this.settings;
    if (textUrl === null) {
      const standIn = await startTextStandIn(this.database, this.log);
      this.closeStandIns.push(standIn.close);
      textUrl = standIn.url;
    }
    const { sender, ownOrigin = 'http://localhost:4180' } = this.settings;
    this.post = new Post(smtpUrl, textUrl, sender, ownOrigin, this.database, this.clock, this.log);
    this.queueDatabase = new QueueDatabase(this.settings.databaseUrl, () =>
      this.log.warn('the queue of nightly work does not reach the database; it waits'),
    );
    const boss = new PgBoss({ db: this.queueDatabase });
    boss.on('error', (error) => this.log.warn({ name: error.name }, 'the queue of nightly work broke; it goes on by itself'));
    this.boss = boss;
    await boss.start();
    for (const queue of Object.values(QUEUES)) await boss.createQueue(queue);
    await boss.work<ForWorkshop>(QUEUES.redate, async (jobs) => {
      for (const { data } of jobs) await this.redateWorkshop(data.workshopId);
    });
    await boss.work<ForWorkshop>(QUEUES.tell, async (jobs) => {
      for (const { data } of jobs) await this.tellWorkshop(data.workshopId);
    });
    await boss.work(QUEUES.post, async () => {
      for (const id of await workshopIds(this.database)) await this.post?.send(id);
    });
    await boss.work(QUEUES.plan, async () => this.planNight());
    await boss.work(QUEUES.backup, async () => this.backUp());
    await boss.schedule(QUEUES.plan, NIGHTLY_CRON);
    if (this.settings.backup) await boss.schedule(QUEUES.backup, BACKUP_CRON);
    else await boss.unschedule(QUEUES.backup);
    await boss.schedule(QUEUES.post, POST_CRON);
    this.log.info({ mail: this.settings.smtpUrl === null ? 'stand-in' : 'outside' }, 'nightly work ready');
  }

  /** A letter that cannot wait for the next round. */
  async sendLetter(letter: OneLetter): Promise<void> {
    if (!this.post) throw new Error('no mail server yet');
    await this.post.sendLetter(letter);
  }

  /** One piece a workshop: a large one does not keep the others waiting, and a failed one is tried again alone. */
  async planNight(): Promise<void> {
    await renewKeys(this.database);
    await pruneAttempts(this.database);
    for (const id of await workshopIds(this.database)) {
      await this.boss?.send(QUEUES.redate, { workshopId: id }, { retryLimit: 3, singletonKey: id });
      await this.boss?.send(QUEUES.tell, { workshopId: id }, { retryLimit: 3, singletonKey: id, startAfter: 60 });
    }
  }

  /** How long fills last, and dates computed anew: policies, limits and usage as they are now. */
  async redateWorkshop(workshopId: string): Promise<number> {
    const now = this.clock.now();
    const [own] = await this.database.select({ timeZone: workshop.timeZone }).from(workshop).where(eq(workshop.id, workshopId));
    if (!own) return 0;
    return inWorkshop(this.database, workshopId, async (scope) => {
      await pruneAnswers(scope, now);
      await refreshLives(scope, { workshopId, today: dayIn(own.timeZone, now), at: now });
      await openMissingDust(scope, null);
      const moved = (await redate(scope, { everything: true })).length;
      // who opens the list in the morning does not wait for it
      await freshenLines({ scope, today: dayIn(own.timeZone, now) });
      return moved;
    });
  }

  async tellWorkshop(workshopId: string): Promise<number> {
    const [own] = await this.database.select({ timeZone: workshop.timeZone }).from(workshop).where(eq(workshop.id, workshopId));
    if (!own) return 0;
    const now = this.clock.now();
    return inWorkshop(this.database, workshopId, async (scope) => {
      const today = dayIn(own.timeZone, now);
      return (await tellDue(scope, workshopId, today, now)) + (await tellLevels(scope, workshopId, today, now));
    });
  }

  /** One backup of everything; the oldest beyond those that are kept goes only once the new one stands. */
  async backUp(): Promise<void> {
    const { backup } = this.settings;
    if (!backup) return;
    const now = this.clock.now();
    try {
      const file = path.join(backup.folder, backupName(now));
      await makeBackup({ ownerUrl: backup.ownerUrl, file, now });
      await this.duties.note('backup', 'done', now);
      const gone = keepNewest(backup.folder, backup.kept);
      this.log.info({ removed: gone.length }, 'everything is backed up');
    } catch (error) {
      await this.duties.note('backup', 'failed', now);
      this.log.error({ name: error instanceof Error ? error.name : 'unknown' }, 'the nightly backup failed; it is tried again tomorrow');
    }
  }

  /** Whether the queue reaches its database. */
  get reached(): boolean {
    return this.boss !== null && this.queueDatabase?.reached === true;
  }

  /** How the nightly backup does, whichever server makes it: off, failed, older than it may be, or well. */
  get backupState(): 'ok' | 'failed' | 'old' | 'off' {
    const { backup } = this.settings;
    if (!backup) return 'off';
    const { doneAt, failedAt } = this.duties.of('backup') ?? { doneAt: null, failedAt: null };
    if (failedAt !== null && (doneAt === null || failedAt > doneAt)) return 'failed';
    const [newest] = backupsIn(backup.folder);
    const hereMs = newest ? madeAtOf(newest).getTime() : this.startedMs;
    const sinceMs = doneAt === null ? hereMs : Math.max(doneAt.getTime(), newest ? hereMs : 0);
    return this.clock.now().getTime() - sinceMs > BACKUP_OLD_MS ? 'old' : 'ok';
  }

  /** Sends what waits now, without waiting for the next minute. */
  sendNow(workshopId: string): Promise<number> {
    return this.post?.send(workshopId) ?? Promise.resolve(0);
  }

  async close(): Promise<void> {
    this.closed = true;
    await this.letGo();
  }

  private async letGo(): Promise<void> {
    // statements that wait for the database end first, so that the queue can stop without it
    const closing = this.queueDatabase?.close();
    await this.boss?.stop({ graceful: false, close: true }).catch(() => undefined);
    await closing;
    this.post?.close();
    await Promise.all(this.closeStandIns.map((close) => close().catch(() => undefined)));
    this.boss = null;
    this.queueDatabase = null;
    this.post = null;
    this.closeStandIns = [];
  }
}
