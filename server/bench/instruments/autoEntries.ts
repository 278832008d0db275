import { say } from '../../../core/base/words/say.js';
import type { Writer } from '../runs/writer.js';
import { hasOnline } from '../commands/commands.js';
import type { RunEventBody } from '../../../core/bench/runs/entries/all.js';
import { refusalWords } from '../../../core/edge/words/bench.js';
import { randomUUID } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import type { Logger } from 'pino';
import { currentKind, type RunState } from '../../../core/bench/runs/state.js';
import { stepOf, type Procedure } from '../../../core/bench/runs/procedure.js';
import type { RunEvent } from '../../../core/bench/runs/log.js';
import { PART_INSTRUMENTS, partReadBy, type InstrumentReading } from '../../../core/bench/instruments/kinds.js';
import { streamedNote, warmingOf } from '../../../core/bench/runs/warming.js';
import type { PartKind } from '../../../core/physics/diagnosis/sensors.js';
import { AUTO } from '../../../core/bench/instruments/defaults.js';
import { SupplyEcho } from '../../../core/bench/instruments/supplyEcho.js';
import { levelMlOf } from '../../../core/bench/instruments/level.js';
import { levelAgainstBook } from '../../../core/bench/instruments/levelAgainstBook.js';
import { person } from '../../base/database/tables/people.js';
import { tryAppend } from '../runs/append.js';
import { foldOf } from '../runs/folds.js';
import { run } from '../../base/database/tables/runs.js';
import { inWorkshop, type Database } from '../../base/database/client.js';
import type { Clock } from '../../base/http/clock.js';
import type { KeptReadings } from './ingest.js';

type Publish = (workshopId: string, benchId: string, topic: 'supply/set', payload: { on: boolean }) => void;

/** What is known of a bench between its readings. */
interface Memory {
  roomC: number | null;
  /** ms; the last gauge reading that was tried as an entry */
  triedMs: number;
  /** ms by part; its last temperature that was tried as a note of a load test */
  readonly warmedMs: Map<PartKind, number>;
  supplyOn: boolean | null;
  /** ms; the level was seen below its mark and the pump switched off */
  guardedMs: number;
  /** the level read last, for how fast it falls */
  lastLevel: { mm: number; atMs: number } | null;
  /** ms; the pump stopped and its column comes to rest: then the level is read once. null: nothing to read */
  restMs: number | null;
  /** ms; the standing level was compared with the book */
  comparedMs: number;
  readonly echo: SupplyEcho;
}

interface Active {
  readonly runId: string;
  readonly procedure: Procedure;
  readonly state: RunState;
  /** the newest entry of its log */
  readonly last: RunEvent | undefined;
  readonly writer: Writer;
  readonly source: 'instrument' | 'simulated';
}

/**
 * Entries that nobody has hands for: gauge readings of a running air test, once a minute; the supply's switch when it
 * was turned at the bench; and the pump off at the low mark. They follow the rules of every entry. A pump that may not
 * run is switched off again.
 */
export class AutoEntries {
  private readonly benches = new Map<string, Memory>();

  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly log: Logger,
    private readonly publish: Publish,
  ) {}

  private memoryOf(benchId: string): Memory {
    const known = this.benches.get(benchId);
    if (known) return known;
    const fresh: Memory = {
      roomC: null,
      triedMs: 0,
      warmedMs: new Map(),
      supplyOn: null,
      guardedMs: 0,
      lastLevel: null,
      restMs: null,
      comparedMs: 0,
      echo: new SupplyEcho(),
    };
    this.benches.set(benchId, fresh);
    return fresh;
  }

  /** Another server may have spoken meanwhile: nothing that was known of benches counts. */
  beginAnew(): void {
    this.benches.clear();
  }

  /** The supply was told to switch: what it says back is no hand at the bench, however late it comes. */
  commanded(benchId: string, on: boolean, atMs: number): void {
    this.memoryOf(benchId).echo.told(on, atMs);
  }

  /** One batch of readings of one bench, in their order. */
  async follow({ workshopId, benchId, receivedMs, readings }: KeptReadings): Promise<void> {
    const memory = this.memoryOf(benchId);
    for (const reading of readings) {
      try {
        await this.one(workshopId, benchId, memory, reading, receivedMs);
      } catch (error) {
        this.log.warn({ name: error instanceof Error ? error.name : typeof error }, 'an instrument’s entry was not made');
      }
    }
  }

  private async one(
    workshopId: string,
    benchId: string,
    memory: Memory,
    { kind, value, at }: InstrumentReading,
    receivedMs: number,
  ): Promise<void> {
    const atMs = Date.parse(at);
    const part = partReadBy(kind);
    if (part !== null) {
      if (atMs - (memory.warmedMs.get(part) ?? 0) < AUTO.warmEveryS * 1000 - AUTO.slackMs) return;
      memory.warmedMs.set(part, atMs);
      await this.onRun(workshopId, benchId, (active) => this.warming(active, PART_INSTRUMENTS[part].sensor, value, at));
    } else if (kind === 'room-temp') memory.roomC = value;
    else if (kind === 'level') await this.levelSeen(workshopId, benchId, memory, value, at);
    else if (kind === 'gauge' && atMs - memory.triedMs >= AUTO.dryEveryS * 1000) {
      memory.triedMs = atMs;
      await this.onRun(workshopId, benchId, (active) => this.dryReading(active, memory, value, at));
    } else if (kind === 'supply') {
      const on = value === 1;
      const said = memory.echo.of(on, receivedMs);
      if (said === 'under-way' || memory.supplyOn === on) return;
      const isFirst = memory.supplyOn === null;
      memory.supplyOn = on;
      memory.guardedMs = 0;
      memory.restMs = on ? null : atMs + AUTO.levelRestS * 1000;
      // what was commanded while nobody spoke with the bench was lost: a pump that the log has stopped is stopped, not booked as started
      if (isFirst && on && said === 'by-hand')
        await this.onRun(workshopId, benchId, (active) => this.foundRunning(workshopId, benchId, active, at));
      else if (said === 'by-hand') await this.onRun(workshopId, benchId, (active) => this.switched(workshopId, benchId, active, on, at));
    }
  }

  /** A level: read once behind a stop, compared with the book while the pump stands, watched while it runs. */
  private async levelSeen(workshopId: string, benchId: string, memory: Memory, mm: number, at: string): Promise<void> {
    const atMs = Date.parse(at);
    const before = memory.lastLevel;
    memory.lastLevel = { mm, atMs };
    if (memory.restMs !== null && atMs >= memory.restMs) {
      memory.restMs = null;
      await this.onRun(workshopId, benchId, (active) => this.settled(active, mm, at));
    } else if (memory.supplyOn !== true && atMs - memory.comparedMs >= AUTO.compareEveryMs) {
      memory.comparedMs = atMs;
      if (before && Math.abs(before.mm - mm) <= AUTO.standsWithinMm)
        await this.onRun(workshopId, benchId, (active) => this.poured(active, mm, at));
    } else if (memory.supplyOn === true && atMs - memory.guardedMs >= AUTO.guardEveryMs) {
      await this.onRun(workshopId, benchId, (active) =>
        this.guard(workshopId, benchId, active, memory, { mm, soonMm: soonMm(before, mm, atMs), at }),
      );
    }
  }

  /** Calls with the run that stands on the bench, as it is now; with the person who started it, whose run it is. */
  private onRun(workshopId: string, benchId: string, work: (active: Active) => Promise<void>): Promise<void> {
    return inWorkshop(this.database, workshopId, async (scope) => {
      const [row] = await scope
        .select({ id: run.id, procedure: run.procedure, personId: run.personId, personName: person.name })
        .from(run)
        .innerJoin(person, eq(person.id, run.personId))
        .where(and(eq(run.benchId, benchId), eq(run.state, 'active')))
        .limit(1);
      if (!row) return;
      const simulated = await hasOnline(scope, benchId, 'simulated');
      const { state, events } = await foldOf(scope, row.id);
      const writer = { scope, clock: this.clock, account: { workshopId, personId: row.personId, personName: row.personName } };
      await work({
        runId: row.id,
        procedure: row.procedure,
        state,
        last: events.at(-1),
        writer,
        source: simulated ? 'simulated' : 'instrument',
      });
    });
  }

  private add({ runId, writer }: Active, body: RunEventBody, at: string): ReturnType<typeof tryAppend> {
    return tryAppend(writer, runId, { id: randomUUID(), at, body });
  }

  private async note(active: Active, text: string, at: string): Promise<void> {
    const step = active.state.current;
    if (step !== null) await this.add(active, { type: 'note', step, text }, at);
  }

  /** Goes on by itself once the first reading came from the gauge, until the step is closed or the test starts again. */
  private async dryReading(active: Active, memory: Memory, gaugeKpa: number, at: string): Promise<void> {
    const { state, source } = active;
    const last = state.dryReadings.at(-1);
    if (currentKind(state) !== 'dry-test' || !last || last.source === 'hand' || memory.roomC === null) return;
    if (Date.parse(at) - Date.parse(last.at) < AUTO.dryEveryS * 1000 - AUTO.slackMs) return;
    await this.add(active, { type: 'dry-reading', gaugeKpa, tempC: memory.roomC, source }, at);
  }

  /** A load test goes on being noted once a minute from its first note by an instrument, until its reading is entered. */
  private async warming(active: Active, sensor: string, tempC: number, at: string): Promise<void> {
    const { state, procedure, source } = active;
    if (currentKind(state) !== 'baseline') return;
    const before = stepOf(procedure, state.current)?.does.includes('measures-before') === true;
    const last = streamedNote(state, sensor, before);
    const from = warmingOf(state, sensor, before)?.from;
    if (!last || from === undefined || Date.parse(at) - Date.parse(from) > AUTO.warmMostS * 1000) return;
    if (Date.parse(at) - Date.parse(last.at) < AUTO.warmEveryS * 1000 - AUTO.slackMs) return;
    await this.add(active, { type: 'warming', sensor, tempC, ...(before ? { before } : {}), source }, at);
  }

  /** The first that is heard of a supply says that it is on. */
  private async foundRunning(workshopId: string, benchId: string, active: Active, at: string): Promise<void> {
    const { state } = active;
    if (state.pump?.on === true || state.signedOff) return;
    this.publish(workshopId, benchId, 'supply/set', { on: false });
    await this.note(active, say('The supply was found on while the log says off, and was switched off.'), at);
  }

  /** The switch was turned at the bench itself. */
  private async switched(workshopId: string, benchId: string, active: Active, on: boolean, at: string): Promise<void> {
    if ((active.state.pump?.on ?? false) === on || active.state.signedOff) return;
    const done = await this.add(active, { type: 'pump', on, source: active.source }, at);
    if (!('refusal' in done) || !on) return;
    this.publish(workshopId, benchId, 'supply/set', { on: false });
    await this.note(
      active,
      `The supply was switched on at the bench and switched off again: ${refusalWords(done.procedure, done.refusal)}`,
      at,
    );
  }

  /** What fell back when the pump stopped stands in the reservoir again: the next pulse begins there. */
  private async settled(active: Active, levelMm: number, at: string): Promise<void> {
    const { state, procedure, source } = active;
    const reservoir = procedure.facts?.reservoir;
    const ml = reservoir ? levelMlOf(reservoir, levelMm) : null;
    if (ml === null || currentKind(state) !== 'fill' || state.pump?.on === true || state.pours.length === 0) return;
    await this.add(active, { type: 'level', levelMl: Math.max(0, Math.round(ml)), source }, at);
  }

  /** What was poured stands there: where the sensor tells another level than the book, the book is put right once. */
  private async poured(active: Active, levelMm: number, at: string): Promise<void> {
    const { state, procedure, source, last } = active;
    const ml = levelAgainstBook(procedure, state, last, levelMm, Date.parse(at));
    if (ml !== null) await this.add(active, { type: 'level', levelMl: Math.max(0, Math.round(ml)), source }, at);
  }

  /** While filling or rinsing, the pump stops at the low mark even if no hand is there. */
  private async guard(
    workshopId: string,
    benchId: string,
    active: Active,
    memory: Memory,
    { mm, soonMm: nextMm, at }: { mm: number; soonMm: number; at: string },
  ): Promise<void> {
    const { state, procedure, source } = active;
    // a day's wet test is not read through four times a second: once liquid goes round the level falls slowly
    const watched = ['fill', 'rinse'].includes(currentKind(state) ?? '');
    memory.guardedMs = Date.parse(at) + (watched ? 0 : AUTO.guardRestMs);
    const reservoir = procedure.facts?.reservoir;
    const [ml, soonMl] = reservoir ? [levelMlOf(reservoir, mm), levelMlOf(reservoir, nextMm)] : [null, null];
    if (!reservoir || ml === null || soonMl === null || !watched || state.pump?.on !== true) return;
    const isStart = Date.parse(at) - Date.parse(state.pump.since) < AUTO.guardStartMs;
    if ((isStart ? ml : soonMl) > reservoir.lowMarkMl) return;
    this.publish(workshopId, benchId, 'supply/set', { on: false });
    memory.supplyOn = false;
    memory.restMs = Date.parse(at) + AUTO.levelRestS * 1000;
    await this.add(active, { type: 'level', levelMl: Math.max(0, Math.round(ml)), source }, at);
    await this.add(active, { type: 'pump', on: false, source }, at);
  }
}

/** mm; where a falling level stands by the time the supply has switched off. */
function soonMm(before: { mm: number; atMs: number } | null, mm: number, atMs: number): number {
  const seconds = before ? (atMs - before.atMs) / 1000 : 0;
  if (!before || seconds <= 0 || seconds > AUTO.guardTrendS || mm >= before.mm) return mm;
  return mm + ((mm - before.mm) / seconds) * AUTO.guardLeadS;
}
