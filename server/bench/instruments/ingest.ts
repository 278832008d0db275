import { and, eq, lt } from 'drizzle-orm';
import { InputProblem } from '../../../core/base/checking/input.js';
import type { InstrumentReading } from '../../../core/bench/instruments/kinds.js';
import { readReading, readState } from '../../../core/bench/instruments/payloads.js';
import type { InstrumentTopic } from '../../../core/bench/instruments/topics.js';
import { inWorkshop, workshopIds, type Database, type Scope } from '../../base/database/client.js';
import type { Clock } from '../../base/http/clock.js';
import { pushNotice, type ReadingRow } from '../../base/push/notices.js';
import { instrument, instrumentReading } from '../../base/database/tables/instruments.js';

/** ms that readings are gathered before they are kept together: well below what an eye notices */
const GATHER_MS = 60;
/** readings in one notice: about 70 bytes each, 8 000 bytes in all */
const MOST_IN_NOTICE = 80;
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

interface Batch {
  readonly workshopId: string;
  readonly benchId: string;
  readonly receivedMs: number;
  readonly readings: InstrumentReading[];
}

const words = (error: unknown): string =>
  error instanceof InputProblem ? `${error.path} ${error.message}`.trim() : 'the message could not be read';

/**
 * Checks what instruments send, once, and keeps it: states as rows of their own, readings in batches, each batch in one
 * transaction with its notice. One batch at a time, so that numbers are committed in their order.
 */
export class Ingest {
  private readonly waiting = new Map<string, Batch>();
  private timer: NodeJS.Timeout | null = null;
  private chain: Promise<void> = Promise.resolve();

  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    /** after readings were kept, in their order */
    private readonly onKept: (kept: KeptReadings) => Promise<void>,
    private readonly onTrouble: (error: unknown) => void,
  ) {}

  /** A message as it came from a device. What is wrong with it is written beside the instrument, never guessed. */
  take(topic: InstrumentTopic, payload: string): void {
    try {
      if (topic.channel === 'state') {
        const state = readState(topic.kind, payload);
        this.queue(() => this.saveState(topic, { ...state, problem: null }));
      } else if (topic.channel === 'reading') {
        const { value, at } = readReading(topic.kind, payload);
        const nowMs = this.clock.now().getTime();
        const believed =
          at !== null && (topic.kind === 'supply' || Date.parse(at) <= nowMs + CLOCK_SLACK_MS || this.simulatedBenches.has(topic.benchId));
        this.gather(topic, { kind: topic.kind, value, at: believed ? new Date(at).toISOString() : new Date(nowMs).toISOString() });
      }
    } catch (error) {
      this.queue(() => this.saveProblem(topic, words(error)));
    }
  }

  /** Benches whose instruments are stand-ins: their clock may be set ahead. */
  private readonly simulatedBenches = new Set<string>();

  private gather({ workshopId, benchId }: InstrumentTopic, reading: InstrumentReading): void {
    const batch = this.waiting.get(benchId) ?? { workshopId, benchId, receivedMs: Date.now(), readings: [] };
    batch.readings.push(reading);
    this.waiting.set(benchId, batch);
    this.timer ??= setTimeout(() => this.flush(), GATHER_MS);
  }

  private flush(): void {
    this.timer = null;
    const batches = [...this.waiting.values()];
    this.waiting.clear();
    for (const batch of batches) this.queue(() => this.keep(batch));
  }

  private queue(work: () => Promise<void>): void {
    this.chain = this.chain.then(work).catch(this.onTrouble);
  }

  /** Everything taken so far is kept. */
  async settled(): Promise<void> {
    if (this.timer !== null) {
      clearTimeout(this.timer);
      this.flush();
    }
    await this.chain;
  }

  private async keep({ workshopId, benchId, receivedMs, readings }: Batch): Promise<void> {
    await inWorkshop(this.database, workshopId, async (scope) => {
      const rows = await scope
        .insert(instrumentReading)
        .values(readings.map(({ kind, value, at }) => ({ workshopId, benchId, kind, value, at: new Date(at) })))
        .returning({ id: instrumentReading.id });
      const sent = readings.map(({ kind, value, at }, index): ReadingRow => [(rows[index] as { id: number }).id, kind, value, at]);
      for (let from = 0; from < sent.length; from += MOST_IN_NOTICE)
        await pushNotice(scope, workshopId, { kind: 'readings', benchId, readings: sent.slice(from, from + MOST_IN_NOTICE) });
    });
    await this.onKept({ workshopId, benchId, receivedMs, readings });
  }

  private async saveState(
    topic: InstrumentTopic,
    values: { online: boolean; resolution: number | null; simulated: boolean; problem: string | null },
  ): Promise<void> {
    if (values.simulated) this.simulatedBenches.add(topic.benchId);
    await inWorkshop(this.database, topic.workshopId, async (scope) => {
      await this.upsert(scope, topic, values);
    });
  }

  private async saveProblem(topic: InstrumentTopic, problem: string): Promise<void> {
    await inWorkshop(this.database, topic.workshopId, async (scope) => {
      const [known] = await scope
        .select({ problem: instrument.problem })
        .from(instrument)
        .where(and(eq(instrument.benchId, topic.benchId), eq(instrument.kind, topic.kind)));
      if (known?.problem === problem) return;
      if (known) {
        await scope
          .update(instrument)
          .set({ problem })
          .where(and(eq(instrument.benchId, topic.benchId), eq(instrument.kind, topic.kind)));
        await pushNotice(scope, topic.workshopId, { kind: 'instruments', benchId: topic.benchId });
      } else await this.upsert(scope, topic, { online: false, resolution: null, simulated: false, problem });
    });
  }

  private async upsert(
    scope: Scope,
    { workshopId, benchId, kind }: InstrumentTopic,
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
