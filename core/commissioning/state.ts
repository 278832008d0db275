import type { BleedCycle } from '../bleeding/bleed.js';
import type { DecayReading } from '../leak-testing/decay.js';
import type { StandingName } from '../geometry/orientation.js';
import type { BaselineReading, CheckMark, LeakAmount, LeakWhen, ReadingSource, RunEvent, RunEventBody } from './events.js';
import { isServiceEntry, type ServiceEntry } from '../jobs/entries.js';
import { applyService, emptyService, type ServiceState } from '../jobs/serviceState.js';
import type { Procedure } from './procedure.js';

/** Ids of the checks that pull a connector, and of those that bring the same one back. */
export const PULLED = 'pulled:';
export const BACK = 'back:';

export interface CheckState {
  readonly mark: CheckMark;
  readonly reason: string | null;
  readonly at: string;
  readonly by: string;
}

export interface Remark {
  readonly eventId: string;
  readonly text: string;
  readonly at: string;
  readonly by: string;
}

export interface StepState {
  readonly id: string;
  status: 'done' | 'current' | 'to-come';
  readonly checks: Record<string, CheckState>;
  readonly notes: Remark[];
  deviation: Remark | null;
  doneAt: string | null;
}

export interface TimerState {
  readonly step: string;
  readonly startedAt: string;
  readonly stoppedAt: string | null;
  readonly seconds: number;
}

export interface Stamped<T> {
  readonly eventId: string;
  readonly at: string;
  readonly value: T;
  readonly source: ReadingSource;
}

/** Something felt wrong: the part, and the test that answered it. */
export interface Doubt extends Remark {
  readonly part: string;
  answer: { readonly tight: boolean; readonly at: string } | null;
}

export interface Leak extends Remark {
  /** run or part */
  readonly where: string;
  readonly when: LeakWhen;
  readonly amount: LeakAmount;
  mended: (Remark & { cause: string }) | null;
  retested: { readonly dry: boolean; readonly at: string } | null;
}

export interface Spill extends Remark {
  readonly onElectronics: boolean;
  rinsedAt: string | null;
}

/** A run as its entries make it. A pure function of the procedure and the log. */
export interface RunState {
  readonly steps: StepState[];
  /** id of the step the hands are at; null once signed off */
  current: string | null;
  readonly timers: Record<string, TimerState>;
  /** readings of the dry test that counts; earlier ones stay in the log */
  dryReadings: Stamped<{ gaugeKpa: number; tempC: number; atmosphereKpa?: number }>[];
  /** 1 for the first dry test, 2 after it was restarted … */
  dryTestNumber: number;
  /** the pump as recorded, and since when */
  pump: { readonly on: boolean; readonly since: string } | null;
  /** each time it ran, in order; the last one may still run */
  readonly pumpRuns: { readonly startedAt: string; stoppedAt: string | null }[];
  /** "component.port" of every closure that is recorded open */
  readonly openPorts: Set<string>;
  /** runs with a joint that is recorded undone */
  readonly openJoints: Set<string>;
  stand: { readonly to: StandingName; readonly angleDeg: number };
  readonly levels: Stamped<number>[];
  readonly doubts: Doubt[];
  readonly partTests: Stamped<{ part: string; tight: boolean; how: string; leftMl: number }>[];
  readonly leaks: Leak[];
  readonly spills: Spill[];
  readonly overrides: (Remark & { rule: string })[];
  coolant: { productId: string; productName: string; batchId: string | null; lot: string | null } | null;
  readonly pours: Stamped<number>[];
  readonly bleedCycles: Stamped<BleedCycle>[];
  readonly baselines: Stamped<BaselineReading>[];
  /** of a service: measured before anything was touched */
  readonly befores: Stamped<BaselineReading>[];
  readonly service: ServiceState;
  readonly corrections: (Remark & { about: string | null })[];
  signedOff: Remark | null;
  readonly withdrawn: ReadonlySet<string>;
}

/** Entries that were taken back. An entry that takes back another cannot itself be taken back. */
function withdrawnIds(events: readonly RunEvent[]): Set<string> {
  return new Set(events.flatMap(({ body }) => (body.type === 'withdrawn' ? [body.event] : [])));
}

/** Replays the log. The same log gives the same state, on any machine. */
export function replay(procedure: Procedure, events: readonly RunEvent[]): RunState {
  const withdrawn = withdrawnIds(events);
  const state: RunState = {
    steps: procedure.steps.map(({ id }) => ({ id, status: 'to-come', checks: {}, notes: [], deviation: null, doneAt: null })),
    current: null,
    timers: {},
    dryReadings: [],
    dryTestNumber: 1,
    pump: null,
    pumpRuns: [],
    openPorts: new Set(),
    openJoints: new Set(),
    stand: { to: 'upright', angleDeg: 0 },
    levels: [],
    doubts: [],
    partTests: [],
    leaks: [],
    spills: [],
    overrides: [],
    coolant: null,
    pours: [],
    bleedCycles: [],
    baselines: [],
    befores: [],
    service: emptyService(),
    corrections: [],
    signedOff: null,
    withdrawn,
  };
  for (const event of events) {
    if (!withdrawn.has(event.id)) apply(state, procedure, event);
  }
  markCurrent(state);
  return state;
}

/** entries that a commissioning knows as well */
type OwnType = Exclude<RunEventBody['type'], ServiceEntry['type']>;

function apply(state: RunState, procedure: Procedure, event: RunEvent): void {
  const { body, at } = event;
  const source: ReadingSource = ('source' in body ? body.source : undefined) ?? 'hand';
  const stamp = <T>(value: T): Stamped<T> => ({ eventId: event.id, at, value, source });
  const remark = (text: string): Remark => ({ eventId: event.id, text, at, by: event.by });
  const step = 'step' in body ? state.steps.find(({ id }) => id === body.step) : undefined;
  if ('override' in body && body.override) state.overrides.push({ ...remark(body.override.reason), rule: body.override.rule });
  if (isServiceEntry(body)) return applyService(state.service, body, event);
  const handlers: { [T in OwnType]: (entry: Extract<RunEventBody, { type: T }>) => void } = {
    check: (entry) => {
      mirrorPulled(state, entry, at, event.by);
      if (step) step.checks[entry.check] = { mark: entry.mark, reason: entry.reason ?? null, at, by: event.by };
    },
    note: (entry) => step?.notes.push(remark(entry.text)),
    'timer-started': (entry) => {
      const seconds = procedure.steps.flatMap(({ timers }) => timers).find(({ id }) => id === entry.timer)?.seconds ?? 0;
      state.timers[entry.timer] = { step: entry.step, startedAt: at, stoppedAt: null, seconds };
      // the wet test's clock starts with the pump and stops with it
      if (entry.step === 'wet') switchPump(state, true, at);
    },
    'timer-stopped': (entry) => {
      const running = state.timers[entry.timer];
      if (running) state.timers[entry.timer] = { ...running, stoppedAt: at };
      if (entry.step === 'wet') switchPump(state, false, at);
    },
    'dry-reading': ({ gaugeKpa, tempC, atmosphereKpa }) => state.dryReadings.push(stamp({ gaugeKpa, tempC, atmosphereKpa })),
    'dry-restarted': (entry) => {
      state.dryReadings = [];
      state.dryTestNumber += 1;
      state.steps.find(({ id }) => id === 'dry')?.notes.push(remark(`Test started again: ${entry.reason}`));
    },
    pump: ({ on }) => switchPump(state, on, at),
    port: ({ port, open }) => void (open ? state.openPorts.add(port) : state.openPorts.delete(port)),
    joint: ({ joint, open }) => void (open ? state.openJoints.add(joint) : state.openJoints.delete(joint)),
    turn: ({ to, angleDeg }) => {
      state.stand = { to, angleDeg };
    },
    level: ({ levelMl }) => state.levels.push(stamp(levelMl)),
    doubt: ({ part, text }) => state.doubts.push({ ...remark(text), part, answer: null }),
    'part-test': ({ part, tight, how, leftMl }) => {
      state.partTests.push(stamp({ part, tight, how, leftMl }));
      for (const doubt of state.doubts) if (doubt.part === part) doubt.answer = { tight, at };
    },
    leak: ({ at: where, when, amount, text }) => state.leaks.push({ ...remark(text), where, when, amount, mended: null, retested: null }),
    'leak-mended': ({ leak, cause, fix }) => {
      const found = state.leaks.find(({ eventId }) => eventId === leak);
      if (!found) return;
      found.mended = { ...remark(fix), cause };
      found.retested = null;
    },
    'leak-retested': ({ leak, dry }) => {
      const found = state.leaks.find(({ eventId }) => eventId === leak);
      if (found) found.retested = { dry, at };
    },
    spill: ({ onElectronics, text }) => state.spills.push({ ...remark(text), onElectronics, rinsedAt: null }),
    'spill-rinsed': ({ spill }) => {
      const found = state.spills.find(({ eventId }) => eventId === spill);
      if (found) found.rinsedAt = at;
    },
    coolant: ({ productId, productName, batchId, lot }) => {
      state.coolant = { productId, productName, batchId, lot };
    },
    pour: ({ volumeMl }) => {
      state.pours.push(stamp(volumeMl));
      state.service.flows.push({ eventId: event.id, at, way: 'in', liquid: 'coolant', volumeMl });
    },
    'bleed-cycle': ({ runningMm, stoppedMm, bubbles, noise }) => state.bleedCycles.push(stamp({ runningMm, stoppedMm, bubbles, noise })),
    baseline: ({ reading, before }) => (before ? state.befores : state.baselines).push(stamp(reading)),
    'step-done': () => {
      if (step?.id === 'wet') switchPump(state, false, at);
      // taken apart: what the book still held is on towels and in parts
      if (step?.id === 'strip') state.service.flows.push({ eventId: event.id, at, way: 'emptied', liquid: 'old', volumeMl: 0 });
      if (step) {
        step.status = 'done';
        step.doneAt = at;
      }
    },
    deviation: (entry) => {
      if (step?.id === 'wet') switchPump(state, false, at);
      if (step) {
        step.status = 'done';
        step.doneAt = at;
        step.deviation = remark(entry.reason);
      }
    },
    withdrawn: () => undefined,
    'signed-off': (entry) => {
      state.signedOff = remark(entry.remark);
    },
    correction: (entry) => state.corrections.push({ ...remark(entry.text), about: entry.about }),
  };
  (handlers[body.type] as (entry: RunEventBody) => void)(body);
}

function switchPump(state: RunState, on: boolean, at: string): void {
  const last = state.pumpRuns.at(-1);
  if (on && (!last || last.stoppedAt !== null)) state.pumpRuns.push({ startedAt: at, stoppedAt: null });
  if (!on && last?.stoppedAt === null) last.stoppedAt = at;
  state.pump = { on, since: at };
}

/** What was never pulled need not come back: its line in the return to power answers itself, and opens again with it. */
function mirrorPulled(state: RunState, entry: Extract<RunEventBody, { type: 'check' }>, at: string, by: string): void {
  if (!entry.check.startsWith(PULLED)) return;
  const checks = state.steps.find(({ id }) => id === 'power')?.checks;
  const back = `${BACK}${entry.check.slice(PULLED.length)}`;
  if (!checks) return;
  if (entry.mark === 'not-needed') checks[back] = { mark: 'not-needed', reason: 'was not pulled', at, by };
  else if (checks[back]?.mark === 'not-needed') checks[back] = { mark: 'open', reason: null, at, by };
}

function markCurrent(state: RunState): void {
  if (state.signedOff) {
    state.steps.forEach((step) => {
      step.status = 'done';
    });
    return;
  }
  const current = state.steps.find(({ status }) => status !== 'done');
  if (current) current.status = 'current';
  state.current = current?.id ?? null;
}

/** mL that parts tested on their own brought with them: they count as already filled. */
export const broughtMl = (state: RunState): number => state.partTests.reduce((sum, { value }) => sum + value.leftMl, 0);

export const pouredMl = (state: RunState): number => state.pours.reduce((sum, { value }) => sum + value, 0);

/** Readings of the dry test that counts, with times from its first one. Sorted: a reading may be entered late. */
export function dryReadings(state: RunState): DecayReading[] {
  const sorted = [...state.dryReadings].sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
  const zero = Date.parse(sorted[0]?.at ?? '1970-01-01T00:00:00Z');
  return sorted.map(({ at, value }) => ({ tS: (Date.parse(at) - zero) / 1000, ...value }));
}

export interface TimerFace {
  readonly running: boolean;
  readonly remainingS: number;
  readonly finished: boolean;
}

/** What a timer shows at an instant. It runs on instants in the log, so a reload or a restart loses nothing. */
export function timerFace(timer: TimerState, nowMs: number): TimerFace {
  const until = timer.stoppedAt === null ? nowMs : Date.parse(timer.stoppedAt);
  const elapsedS = Math.max(0, (until - Date.parse(timer.startedAt)) / 1000);
  const remainingS = Math.max(0, timer.seconds - elapsedS);
  return { running: timer.stoppedAt === null && remainingS > 0, remainingS, finished: remainingS === 0 };
}
