import { procedureNow } from './alsoPulled.js';
import { bookOf, twinOf } from './book.js';
import { definitionOf } from './entries/all.js';
import { remark, type Override } from './entry.js';
import { isKnownKind, type RunEvent } from './log.js';
import { carryOver, loopChanges, procedureAfter } from './loopThen.js';
import type { Procedure } from './procedure.js';
import { emptyState, type Made, type RunState } from './state.js';

/** Joins one entry to a state that is carried forward. Costs the same however long the log is. */
function apply(whole: Procedure, state: RunState, { id, at, by, body }: RunEvent): void {
  const made: Made = { eventId: id, at, by };
  // a newer program wrote it: it is kept, shown as such, and changes nothing here
  if (!isKnownKind(body.type)) return void state.unknown.push({ ...made, kind: (body as { type: string }).type });
  const passed = (body as { override?: Override }).override;
  if (passed) state.overrides.push({ ...remark(made, passed.reason), rule: passed.rule });
  const definition = definitionOf(body);
  // each entry is folded with the loop as it was then
  const procedure = procedureNow(procedureAfter(whole, loopChanges(state)), state);
  const book = bookOf(procedure, state.contents);
  const atMs = Date.parse(at);
  book.passTo(atMs);
  definition.moves?.(book, body, state, procedure, made);
  definition.apply(state, body, made, procedure);
  if (definition.carriesOver) carryOver(whole, procedure, state, definition.carriesOver(body, procedure));
  if (state.pump?.on === true) book.pumpOn(atMs, slowedBy(procedure, body));
  else book.pumpOff(atMs);
  markCurrent(state);
}

/** Share of the file's speeds at which the pump was told to run. */
function slowedBy(procedure: Procedure, body: RunEvent['body']): number {
  const speed = body.type === 'pump' ? body.speed : undefined;
  return speed === undefined ? 1 : Math.min(1, speed / Math.max(1e-3, twinOf(procedure)?.drive.speed ?? 1));
}

function markCurrent(state: RunState): void {
  const next = state.signedOff ? undefined : state.steps.find(({ status }) => status !== 'done');
  if (next) next.status = 'current';
  state.current = next?.id ?? null;
}

/** A copy to go back to. Readings lie outside: their lists only grow, so their length is enough. */
interface Checkpoint {
  /** entries that are part of it */
  readonly count: number;
  readonly state: RunState;
  readonly readings: Pick<RunState, 'dryReadings' | 'levels'>;
  readonly lengths: { readonly dryReadings: number; readonly levels: number };
}

const READINGS = ['dryReadings', 'levels'] as const;

function checkpointOf(state: RunState, count: number): Checkpoint {
  const { dryReadings, levels, ...rest } = state;
  return {
    count,
    state: structuredClone({ ...rest, dryReadings: [], levels: [] }),
    readings: { dryReadings, levels },
    lengths: { dryReadings: dryReadings.length, levels: levels.length },
  };
}

function stateAt({ state, readings, lengths }: Checkpoint): RunState {
  const copy = structuredClone(state);
  for (const name of READINGS) copy[name] = readings[name].slice(0, lengths[name]) as never;
  return copy;
}

/** After these a checkpoint is kept: undo rarely reaches behind them. */
const CLOSES_STEP: readonly string[] = ['step-done', 'deviation'];

/**
 * A run carried forward: each new entry is folded in once. An entry that is taken back, or one that comes late, folds
 * again from the last checkpoint before it; there is one at each step's end.
 */
export class RunFold {
  private folded: RunEvent[] = [];
  private checkpoints: Checkpoint[];
  private own: RunState;
  private takenBack = new Set<string>();
  /** where each entry stands, by its id */
  private places = new Map<string, number>();
  /** copies that the last snapshot holds, by the lists they were made of */
  private shown = new WeakMap<readonly unknown[], unknown[]>();

  constructor(readonly procedure: Procedure) {
    this.own = emptyState(procedureAfter(procedure, 0));
    this.checkpoints = [checkpointOf(this.own, 0)];
  }

  get state(): RunState {
    return this.own;
  }

  /** The state as it is now, for a screen: a new object down to the mark of a single check, that changes no more. */
  snapshot(): RunState {
    const { dryReadings, levels, steps, ...rest } = this.own;
    // what is long only grows, and what stands in it never changes: the lists are copied, not what they hold
    const copy = structuredClone({ ...rest, steps: steps.map((step) => ({ ...step, notes: [] })) });
    return {
      ...copy,
      steps: copy.steps.map((step, index) => ({ ...step, notes: this.shownOf(steps[index]?.notes ?? []) })),
      dryReadings: this.shownOf(dryReadings),
      levels: this.shownOf(levels),
    };
  }

  /** A list as it is now. One that has not grown since the last snapshot is that snapshot's: an entry lengthens one list, not all. */
  private shownOf<T>(list: readonly T[]): T[] {
    const before = this.shown.get(list) as T[] | undefined;
    if (before?.length === list.length) return before;
    const now = list.slice();
    this.shown.set(list, now);
    return now;
  }

  get events(): readonly RunEvent[] {
    return this.folded;
  }

  find(id: string): RunEvent | undefined {
    const index = this.places.get(id);
    return index === undefined ? undefined : this.folded[index];
  }

  push(event: RunEvent): this {
    this.places.set(event.id, this.folded.length);
    this.folded.push(event);
    if (event.body.type === 'withdrawn') {
      this.takenBack.add(event.body.event);
      const { event: target } = event.body;
      this.foldFrom(this.places.get(target) ?? -1);
    } else this.join(event, this.folded.length);
    return this;
  }

  /** The log as it is now: what is new is folded in, what changed before it folds again. */
  sync(events: readonly RunEvent[]): this {
    const same = events.findIndex((event, index) => this.folded[index]?.id !== event.id || this.folded[index]?.at !== event.at);
    const from = same < 0 ? events.length : same;
    if (from === this.folded.length && events.length >= this.folded.length) {
      for (const event of events.slice(from)) this.push(event);
      return this;
    }
    this.folded = [...events];
    this.places = new Map(events.map(({ id }, index) => [id, index]));
    this.takenBack = new Set(events.flatMap(({ body }) => (body.type === 'withdrawn' ? [body.event] : [])));
    const touched = [...this.takenBack].flatMap((id) => this.places.get(id) ?? []);
    this.foldFrom(Math.min(from, ...touched));
    return this;
  }

  private foldFrom(index: number): void {
    const until = index < 0 ? this.folded.length : index;
    this.checkpoints = this.checkpoints.filter(({ count }) => count <= until);
    const last = this.checkpoints.at(-1) as Checkpoint;
    this.own = stateAt(last);
    for (let at = last.count; at < this.folded.length; at += 1) this.join(this.folded[at] as RunEvent, at + 1);
    for (const id of this.takenBack) this.own.withdrawn.add(id);
  }

  private join(event: RunEvent, count: number): void {
    if (event.body.type === 'withdrawn') this.own.withdrawn.add(event.body.event);
    if (this.takenBack.has(event.id)) return;
    apply(this.procedure, this.own, event);
    if (CLOSES_STEP.includes(event.body.type)) this.checkpoints.push(checkpointOf(this.own, count));
  }
}

/** Replays a log whole. The same log gives the same state, on any machine. */
export const replay = (procedure: Procedure, events: readonly RunEvent[]): RunState => new RunFold(procedure).sync(events).state;
