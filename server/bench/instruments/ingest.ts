import { setTimeout as sleep } from 'node:timers/promises';
import { and, eq, lt, sql } from 'drizzle-orm';
import { say } from '../../../core/base/words/say.js';
import { InputProblem } from '../../../core/base/checking/input.js';
import type { InstrumentKind, InstrumentReading } from '../../../core/bench/instruments/kinds.js';
import { readReading, readState } from '../../../core/bench/instruments/payloads.js';
import type { InstrumentTopic } from '../../../core/bench/instruments/topics.js';
import { inWorkshop, workshopIds, type Database, type Scope } from '../../base/database/client.js';
import type { Clock } from '../../base/http/clock.js';
import { databaseErrorOf, isDatabaseAway } from '../../base/http/errors.js';
import { Gate } from '../../base/http/gate.js';
import { pushNotice, pushNotices, type PushNotice, type ReadingRow } from '../../base/push/notices.js';
import { instrument, instrumentReading } from '../../base/database/tables/instruments.js';

/** ms that readings are gathered before they are kept together: well below what an eye notices */
const GATHER_MS = 60;
/** readings in one notice: about 70 bytes each, 8 000 bytes in all */
const MOST_IN_NOTICE = 80;
/** readings in one transaction */
const MOST_IN_BATCH = 4000;
/** readings of one bench that wait to be kept: minutes of a device gone wild. Beyond, the oldest go, so many at a time */
const MOST_WAITING = 40_000;
const DROPPED_AT_ONCE = 4000;
/** benches whose readings are kept at the same moment */
const AT_ONCE = 4;
/** ms before the database is tried again */
const AGAIN_MS = 1000;
/** ms between two problems that are written beside one instrument */
const PROBLEM_EVERY_MS = 1000;
/** instruments whose last problem is remembered */
const MOST_SAID = 2000;
/** days that raw readings are kept */
const KEPT_DAYS = 30;
/** ms that a device's clock may run ahead; beyond, the server's own instant counts */
const CLOCK_SLACK_MS = 2000;

export interface KeptReadings {
  readonly workshopId: string;
  readonly benchId: string;
  /** ms; when the first of them came in, by this machine's clock: they may wait before they are kept */
  readonly receivedMs: number;
  readonly readings: readonly InstrumentReading[];
}

type Instrument = Pick<InstrumentTopic, 'workshopId' | 'benchId' | 'kind'>;

/** What waits of one bench. Each bench has a queue of its own: a flood on one delays no other. */
interface Lane {
  readonly workshopId: string;
  readonly benchId: string;
  /** ms; when the oldest that waits came in */
  receivedMs: number;
  waiting: InstrumentReading[];
  /** what instruments say of themselves, and what else their bench tells, in its order */
  works: (() => Promise<void>)[];
  /** what was last wrong with a message of each instrument */
  readonly problems: Map<InstrumentKind, string>;
  readonly dropped: Map<InstrumentKind, number>;
  /** null: nothing of it is being kept */
  busy: Promise<void> | null;
}

const words = (error: unknown): string =>
  error instanceof InputProblem ? `${error.path} ${error.message}`.trim() : 'the message could not be read';

/**
 * Checks what instruments send, once, and keeps it: states as rows of their own, readings in batches, each batch in one
 * transaction with its notices. One batch of a bench at a time, so that its numbers are committed in their order.
 */
export class Ingest {
  private readonly lanes = new Map<string, Lane>();
  private readonly gate = new Gate(AT_ONCE, Number.MAX_SAFE_INTEGER);
  /** what is written beside an instrument already: a message that is wrong in the same way costs nothing */
  private readonly said = new Map<string, { readonly problem: string; readonly atMs: number }>();
  private timer: NodeJS.Timeout | null = null;
  private closing = false;

  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    /** after readings were kept, in their order */
    private readonly onKept: (kept: KeptReadings) => Promise<void>,
    private readonly onTrouble: (error: unknown) => void,
  ) {}

  /** A message as it came from a device. What is wrong with it is written beside the instrument, never guessed. */
  take(topic: InstrumentTopic, payload: string): void {
    const lane = this.laneOf(topic);
    try {
      if (topic.channel === 'state') {
        const state = readState(topic.kind, payload);
        lane.works.push(() => this.saveState(topic, { ...state, problem: null }));
      } else if (topic.channel === 'reading') {
        const { value, at } = readReading(topic.kind, payload);
        const nowMs = this.clock.now().getTime();
        const believed =
          at !== null && (topic.kind === 'supply' || Date.parse(at) <= nowMs + CLOCK_SLACK_MS || this.simulatedBenches.has(topic.benchId));
        this.gather(lane, { kind: topic.kind, value, at: believed ? new Date(at).toISOString() : new Date(nowMs).toISOString() });
      }
    } catch (error) {
      lane.problems.set(topic.kind, words(error));
    }
    this.timer ??= setTimeout(() => this.flush(), GATHER_MS);
  }

  /** What else a bench sends, in the order in which it came, and after the messages before it. */
  inTurn(of: Pick<InstrumentTopic, 'workshopId' | 'benchId'>, work: () => Promise<void>): void {
    this.laneOf(of).works.push(work);
    this.timer ??= setTimeout(() => this.flush(), GATHER_MS);
  }

  /** Benches whose instruments are stand-ins: their clock may be set ahead. */
  private readonly simulatedBenches = new Set<string>();

  private laneOf({ workshopId, benchId }: Pick<InstrumentTopic, 'workshopId' | 'benchId'>): Lane {
    const known = this.lanes.get(benchId);
    if (known) return known;
    const lane: Lane = { workshopId, benchId, receivedMs: 0, waiting: [], works: [], problems: new Map(), dropped: new Map(), busy: null }; // prettier-ignore
    this.lanes.set(benchId, lane);
    return lane;
  }

  private gather(lane: Lane, reading: InstrumentReading): void {
    if (lane.waiting.length === 0) lane.receivedMs = Date.now();
    // the oldest go: what is read now matters more, and memory has an end
    if (lane.waiting.length >= MOST_WAITING)
      for (const { kind } of lane.waiting.splice(0, DROPPED_AT_ONCE)) lane.dropped.set(kind, (lane.dropped.get(kind) ?? 0) + 1);
    lane.waiting.push(reading);
  }

  private flush(): void {
    this.timer = null;
    for (const lane of this.lanes.values()) lane.busy ??= this.empty(lane);
  }

  private async empty(lane: Lane): Promise<void> {
    // a batch, then whoever waits: a bench that never ends does not hold a place for good
    do await this.gate.through('', () => this.once(lane));
    while (lane.waiting.length + lane.works.length > 0);
    lane.busy = null;
    if (lane.problems.size === 0) this.lanes.delete(lane.benchId);
    else this.timer ??= setTimeout(() => this.flush(), PROBLEM_EVERY_MS);
  }

  private async once(lane: Lane): Promise<void> {
    for (const work of lane.works.splice(0)) await work().catch(this.onTrouble);
    for (const [kind, count] of lane.dropped)
      lane.problems.set(kind, say('{count} readings were left out: more came than could be kept', { count }));
    lane.dropped.clear();
    const readings = lane.waiting.splice(0, MOST_IN_BATCH);
    try {
      if (readings.length > 0) await this.keep({ ...lane, readings });
    } catch (error) {
      this.onTrouble(error);
      if (isDatabaseAway(error) && !this.closing) {
        // what came stays until the database is back, as far as there is room
        lane.waiting.unshift(...readings);
        await sleep(AGAIN_MS, undefined, { ref: false });
      }
    }
    for (const [kind, problem] of lane.problems) await this.tellProblem({ ...lane, kind }, problem).catch(this.onTrouble);
  }

  /** Everything taken so far is kept. */
  async settled(): Promise<void> {
    this.closing = true;
    if (this.timer !== null) clearTimeout(this.timer);
    this.flush();
    await Promise.all([...this.lanes.values()].flatMap(({ busy }) => (busy ? [busy] : [])));
    this.closing = false;
  }

  /** @throws where the database is away, or keeps none of them */
  private async keep({ workshopId, benchId, receivedMs, readings }: KeptReadings): Promise<void> {
    try {
      await inWorkshop(this.database, workshopId, async (scope) => {
        const ids = await insertReadings(scope, workshopId, benchId, readings);
        const sent = readings.map(({ kind, value, at }, index): ReadingRow => [ids[index] as number, kind, value, at]);
        const notices: PushNotice[] = [];
        for (let from = 0; from < sent.length; from += MOST_IN_NOTICE)
          notices.push({ kind: 'readings', benchId, readings: sent.slice(from, from + MOST_IN_NOTICE) });
        await pushNotices(scope, workshopId, notices);
      });
    } catch (error) {
      // a value that the database cannot hold drops itself alone
      if (readings.length === 1 || !databaseErrorOf(error)?.code.startsWith('22')) throw error;
      const half = readings.length >> 1;
      for (const part of [readings.slice(0, half), readings.slice(half)])
        await this.keep({ workshopId, benchId, receivedMs, readings: part }).catch((reason: unknown) => {
          if (isDatabaseAway(reason)) throw reason;
          this.onTrouble(reason);
        });
      return;
    }
    await this.onKept({ workshopId, benchId, receivedMs, readings });
  }

  private async saveState(
    topic: InstrumentTopic,
    values: { online: boolean; resolution: number | null; simulated: boolean; problem: string | null },
  ): Promise<void> {
    if (values.simulated) this.simulatedBenches.add(topic.benchId);
    this.said.delete(`${topic.benchId} ${topic.kind}`);
    await inWorkshop(this.database, topic.workshopId, async (scope) => {
      await this.upsert(scope, topic, values);
    });
  }

  /** Writes what is wrong beside an instrument, where it is not there already, and not more often than anybody reads it. */
  private async tellProblem(topic: Instrument & { readonly problems: Map<InstrumentKind, string> }, problem: string): Promise<void> {
    const key = `${topic.benchId} ${topic.kind}`;
    const before = this.said.get(key);
    if (before && before.problem !== problem && Date.now() - before.atMs < PROBLEM_EVERY_MS && !this.closing) return;
    topic.problems.delete(topic.kind);
    if (before?.problem === problem) return;
    await this.saveProblem(topic, problem);
    if (this.said.size >= MOST_SAID) this.said.clear();
    this.said.set(key, { problem, atMs: Date.now() });
  }

  private async saveProblem(topic: Instrument, problem: string): Promise<void> {
    await inWorkshop(this.database, topic.workshopId, async (scope) => {
      const changed = await scope
        .update(instrument)
        .set({ problem })
        .where(and(eq(instrument.benchId, topic.benchId), eq(instrument.kind, topic.kind)))
        .returning({ kind: instrument.kind });
      if (changed.length === 0) await this.upsert(scope, topic, { online: false, resolution: null, simulated: false, problem });
      else await pushNotice(scope, topic.workshopId, { kind: 'instruments', benchId: topic.benchId });
    });
  }

  private async upsert(
    scope: Scope,
    { workshopId, benchId, kind }: Instrument,
    values: { online: boolean; resolution: number | null; simulated: boolean; problem: string | null },
  ): Promise<void> {
    const row = { ...values, changedAt: this.clock.now() };
    await scope
      .insert(instrument)
      .values({ workshopId, benchId, kind, ...row })
      .onConflictDoUpdate({ target: [instrument.benchId, instrument.kind], set: row });
    await pushNotice(scope, workshopId, { kind: 'instruments', benchId });
  }
}

/** Rows in one statement of three columns, whatever their number. @returns their numbers, in their order */
async function insertReadings(
  scope: Scope,
  workshopId: string,
  benchId: string,
  readings: readonly InstrumentReading[],
): Promise<number[]> {
  const { rows } = await scope.execute<{ ids: number[] }>(sql`
    with kept as (
      insert into instrument_reading (workshop_id, bench_id, kind, value, at)
      select ${workshopId}::uuid, ${benchId}::uuid, (row ->> 0), (row ->> 1)::float8, (row ->> 2)::timestamptz
      from jsonb_array_elements(${JSON.stringify(readings.map(({ kind, value, at }) => [kind, value, at]))}::jsonb) with ordinality as given (row, nth)
      order by nth returning id)
    select json_agg(id order by id) as ids from kept`);
  return rows[0]?.ids ?? [];
}

/** Readings older than a while go: what counts for a record is an entry of its run. */
export async function pruneReadings(database: Database, now: Date): Promise<void> {
  const before = new Date(now.getTime() - KEPT_DAYS * 86_400_000);
  for (const id of await workshopIds(database))
    await inWorkshop(database, id, (scope) => scope.delete(instrumentReading).where(lt(instrumentReading.at, before)));
}

/** Without a broker nobody is online: what was retained is gone with it. */
export async function markAllOffline(database: Database): Promise<void> {
  for (const id of await workshopIds(database))
    await inWorkshop(database, id, (scope) => scope.update(instrument).set({ online: false }).where(eq(instrument.online, true)));
}
