import { partOfPlace } from '../../machine/seals/places.js';
import type { ColourRead } from '../../machine/liquids/colourSchema.js';
import type { StandingName } from '../../machine/loop-file/orientation.js';
import type { BleedCycle } from '../../physics/air/bleed.js';
import type { LoopContents } from '../../physics/live-book/loopContents.js';
import type { BaselineReading } from '../../physics/diagnosis/reading.js';
import type { DecayReading } from '../../physics/leak-testing/decay.js';
import { startContents } from './book.js';
import type { Procedure, StepKind } from './procedure.js';
import type {
  AlsoPulled,
  CheckState,
  Dyed,
  Missed,
  PourFrom,
  OutflowWay,
  Made,
  Remark,
  StepState,
  TimerState,
  Stamped,
  Doubt,
  Leak,
  FillTrouble,
  Spill,
  Soak,
  Owed,
  Wait,
  BorrowedSeal,
  ServiceState,
  Coolant,
  CoolantRead,
  PastDryTest,
  DryReading,
  GroupReading,
  PartTest,
  Weights,
} from './recorded.js';

export type * from './recorded.js';
export { liesOutside, SWAP_ACTIONS, tookOut } from './recorded.js';

/** A run as its entries make it. Carried forward entry by entry: see `replay.ts`. */
export interface RunState {
  readonly steps: StepState[];
  /** id of the step the hands are at; null once signed off */
  current: string | null;
  readonly timers: Record<string, TimerState>;
  /** readings of the dry test that counts; earlier ones stay in the log */
  dryReadings: Stamped<DryReading>[];
  /** 1 for the first dry test, 2 after it was restarted … */
  dryTestNumber: number;
  /** what the tests before the one that counts came to */
  pastDryTests: PastDryTest[];
  /** kPa that stood inside when the air test was begun anew; null: none */
  airLeftKpa: number | null;
  /** the pump as recorded, and since when */
  pump: { readonly on: boolean; readonly since: string } | null;
  /** each time it ran, in order; the last one may still run */
  readonly pumpRuns: { readonly startedAt: string; stoppedAt: string | null }[];
  /** "component.port" of every closure that is recorded open */
  readonly openPorts: Set<string>;
  /** port that a fill bottle hangs on */
  bottleOn: string | null;
  /** tubes with a joint that is recorded undone */
  readonly openJoints: Set<string>;
  stand: { readonly to: StandingName; readonly angleDeg: number };
  levels: Stamped<number>[];
  /** the machine on a scale, with what was inside at the first time */
  readonly weights: Weights;
  readonly doubts: Doubt[];
  readonly partTests: Stamped<PartTest>[];
  /** gauge at parts that are joined outside the case */
  readonly groupReadings: Stamped<GroupReading>[];
  readonly leaks: Leak[];
  readonly spills: Spill[];
  readonly fillTroubles: FillTrouble[];
  /** dye that went in */
  readonly dyes: (Dyed & Made)[];
  /** what was missing from the kit */
  readonly missed: (Missed & Made)[];
  /** connectors that no sheet knew, in the order they were pulled */
  readonly alsoPulled: AlsoPulled[];
  /** loads that hang on the supply although liquid goes in; null: they are pulled */
  loadsStay: Remark | null;
  readonly overrides: (Remark & { rule: string })[];
  coolant: Coolant | null;
  readonly pours: (Stamped<number> & { readonly from?: PourFrom })[];
  /** what left again of what was poured: over the lid, drawn off, spilled */
  readonly outflows: {
    readonly eventId: string;
    readonly at: string;
    readonly way: OutflowWay;
    readonly volumeMl: number;
    readonly kept?: boolean;
  }[];
  readonly coolantReads: (CoolantRead & Made)[];
  /** the liquid beside its retained sample, as photographs told it */
  readonly colours: (ColourRead & Made)[];
  readonly bleedCycles: Stamped<BleedCycle>[];
  /** called bled by eye and ear alone; null: it was not */
  seenBled: Made | null;
  readonly baselines: Stamped<BaselineReading>[];
  /** of a service: measured before anything was touched */
  readonly befores: Stamped<BaselineReading>[];
  /** temperatures on the way to a reading */
  readonly warmings: Stamped<{ readonly sensor: string; readonly tempC: number; readonly before: boolean }>[];
  readonly service: ServiceState;
  /** what is inside the loop */
  readonly contents: LoopContents;
  readonly corrections: (Remark & { about: string | null })[];
  signedOff: Remark | null;
  /** what stays to be done after the run */
  readonly owed: (Owed & Made)[];
  readonly borrowedSeals: BorrowedSeal[];
  /** each time it waited off its bench; the last one may still do */
  readonly waits: Wait[];
  /** entries of kinds that only a newer program knows */
  readonly unknown: (Made & { readonly kind: string })[];
  readonly withdrawn: Set<string>;
}

export const emptyState = (procedure: Procedure): RunState => ({
  contents: startContents(procedure),
  steps: procedure.steps.map(({ id, kind, does }, index) => ({
    id,
    kind,
    does,
    status: index === 0 ? 'current' : 'to-come',
    checks: {},
    notes: [],
    deviation: null,
    doneAt: null,
  })),
  current: procedure.steps[0]?.id ?? null,
  timers: {},
  dryReadings: [],
  dryTestNumber: 1,
  pastDryTests: [],
  airLeftKpa: null,
  pump: null,
  pumpRuns: [],
  openPorts: new Set(),
  bottleOn: null,
  openJoints: new Set(),
  stand: { to: 'upright', angleDeg: 0 },
  levels: [],
  weights: { before: null, after: null },
  doubts: [],
  partTests: [],
  groupReadings: [],
  leaks: [],
  spills: [],
  fillTroubles: [],
  dyes: [],
  missed: [],
  alsoPulled: [],
  loadsStay: null,
  overrides: [],
  coolant: null,
  pours: [],
  outflows: [],
  coolantReads: [],
  colours: [],
  bleedCycles: [],
  seenBled: null,
  baselines: [],
  befores: [],
  warmings: [],
  service: {
    flows: [],
    drains: [],
    drained: null,
    rinses: [],
    waters: [],
    soaks: [],
    sheet: new Map(),
    causes: [],
    swaps: [],
    used: [],
    pastes: [],
    rings: [],
    blownByMouth: [],
    temporaryFixes: [],
    photos: [],
    rescopes: [],
    rebuilds: [],
  },
  corrections: [],
  signedOff: null,
  owed: [],
  borrowedSeals: [],
  waits: [],
  unknown: [],
  withdrawn: new Set(),
});

export const currentStep = ({ steps, current }: RunState): StepState | undefined => steps.find(({ id }) => id === current);
export const currentKind = (state: RunState): StepKind | null => currentStep(state)?.kind ?? null;
export const isDone = ({ steps }: RunState, is: (step: StepState) => boolean): boolean =>
  steps.some((step) => step.status === 'done' && is(step));

/** What was said of the lines of a step, by their ids. */
export const marksOf = ({ steps }: Pick<RunState, 'steps'>, id: string | undefined): Readonly<Record<string, CheckState>> =>
  steps.find((step) => step.id === id)?.checks ?? {};

export function switchPump(state: RunState, on: boolean, at: string): void {
  const last = state.pumpRuns.at(-1);
  if (on && (!last || last.stoppedAt !== null)) state.pumpRuns.push({ startedAt: at, stoppedAt: null });
  if (!on && last?.stoppedAt === null) last.stoppedAt = at;
  state.pump = { on, since: at };
}

/** Parts and tubes are no part of the loop any more: what stood open at them, and whether they are tight, is no question of it. */
export function forgetPlaces(state: RunState, parts: readonly string[], tubes: readonly string[]): void {
  for (const tube of tubes) state.openJoints.delete(tube);
  for (const port of [...state.openPorts]) if (parts.some((part) => port.startsWith(`${part}.`))) state.openPorts.delete(port);
  const others = state.doubts.filter(({ part }) => !parts.some((id) => partOfPlace(part) === id || part.startsWith(`${id}.`)));
  state.doubts.splice(0, state.doubts.length, ...others);
}

/** The step is over: a wet test's pump stops with it. */
export function closeStep(state: RunState, stepId: string, made: Made, deviation: Remark | null): void {
  const step = state.steps.find(({ id }) => id === stepId);
  if (!step) return;
  if (step.kind === 'wet-run') switchPump(state, false, made.at);
  step.status = 'done';
  step.doneAt = made.at;
  if (deviation) step.deviation = deviation;
}

/** mL that parts tested on their own brought with them: they count as already filled. */
export const broughtMl = ({ partTests }: Pick<RunState, 'partTests'>): number =>
  partTests.reduce((sum, { value }) => sum + value.leftMl, 0);

/** mL that went in out of bottles and this job's own jug. What was drawn down in the run and put back is told of nowhere twice. */
export const pouredMl = ({ pours }: Pick<RunState, 'pours'>): number =>
  pours.reduce((sum, { value, from }) => (from === 'drawn-off' ? sum : sum + value), 0);

/** mL of what was drawn down that went back in. */
export const putBackMl = ({ pours }: Pick<RunState, 'pours'>): number => pours.reduce((sum, { value, from }) => (from === 'drawn-off' ? sum + value : sum), 0); // prettier-ignore

/** mL of what was poured that left again and did not come back: it is not inside. */
export const outflowMl = (state: Pick<RunState, 'outflows' | 'pours'>): number =>
  state.outflows.reduce((sum, { volumeMl }) => sum + volumeMl, 0) - putBackMl(state);

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

export interface SoakFace {
  readonly running: boolean;
  /** min; negative once the cleaner is in longer than its sheet allows */
  readonly leftMinutes: number;
  /** min beyond the limit; 0 within it */
  readonly overMinutes: number;
}

/** What a soak shows at an instant. It runs on instants in the log, so a reload loses nothing. */
export function soakFace({ startedAt, endedAt, mostMinutes }: Soak, nowMs: number): SoakFace {
  const until = endedAt === null ? nowMs : Date.parse(endedAt);
  const minutes = Math.max(0, (until - Date.parse(startedAt)) / 60_000);
  return { running: endedAt === null, leftMinutes: mostMinutes - minutes, overMinutes: Math.max(0, minutes - mostMinutes) };
}

export const runningSoak = ({ soaks }: ServiceState): Soak | null => soaks.find(({ endedAt }) => endedAt === null) ?? null;
