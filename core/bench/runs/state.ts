import type { Suspect } from '../../workshop/lots/suspects.js';
import type { RinseLiquid, Clarity } from '../../machine/liquids/rinsing.js';
import type { StandingName } from '../../machine/loop-file/orientation.js';
import type { BleedCycle } from '../../physics/air/bleed.js';
import type { Flow, LedgerVerdict } from '../../physics/contents/ledger.js';
import type { LoopContents } from '../../physics/live-book/loopContents.js';
import type { BaselineReading } from '../../physics/diagnosis/reading.js';
import type { DecayReading } from '../../physics/leak-testing/decay.js';
import type { OwedKind } from '../../workshop/due-dates/owed.js';
import type { CauseKey, UseLimit } from '../../workshop/due-dates/facts.js';
import type { JobKind } from '../../workshop/jobs/kinds.js';
import type { LotOnBag } from '../../workshop/lots/schema.js';
import type { ItemFindings } from '../inspection/grade.js';
import type { FillSymptom } from '../fill-troubles/causes.js';
import type { LeakAmount, LeakWhen } from '../leak-finding/causes.js';
import type { Waiting } from '../../workshop/jobs/waitFor.js';
import { startContents } from './book.js';
import type { Procedure, StepKind, StepTrait } from './procedure.js';

/** A pour that comes from no lot: this job's old liquid, or what was drawn off in this very run. */
export type PourFrom = 'own-jug' | 'drawn-off';

/** see `entries/outflow.ts` */
export type OutflowWay = 'ran-over' | 'drawn-off' | 'spilled';

export type CheckMark = 'done' | 'open' | 'not-needed';

/** Where a value came from: read and typed, sent by an instrument of the bench, or by a simulated stand-in of one. */
export type ReadingSource = 'hand' | 'instrument' | 'simulated';

/** When and by whom an entry was made. */
export interface Made {
  readonly eventId: string;
  readonly at: string;
  readonly by: string;
}

export interface CheckState {
  readonly mark: CheckMark;
  readonly reason: string | null;
  readonly at: string;
  readonly by: string;
}

export interface Remark extends Made {
  readonly text: string;
}

export interface StepState {
  readonly id: string;
  readonly kind: StepKind;
  readonly does: readonly StepTrait[];
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
  /** tube or part */
  readonly where: string;
  readonly when: LeakWhen;
  readonly amount: LeakAmount;
  /** found under test air: only test air shows that it is mended */
  readonly inAir: boolean;
  mended: (Remark & { cause: string }) | null;
  /** the places that share its cause were looked at */
  sistersSeen: Made | null;
  /** the last look since it was mended */
  retested: Retest | null;
  /** every look, of every mending */
  retests: readonly Retest[];
}

/** A mended place looked at again: by whom, and as what: under test air, with the pump running since, or standing. */
export interface Retest {
  readonly dry: boolean;
  readonly how: 'air' | 'running' | 'standing';
  readonly at: string;
  readonly by: string;
}

/** What is wrong with the filling, until somebody says what was behind it. */
export interface FillTrouble extends Remark {
  readonly symptom: FillSymptom;
  solved: (Remark & { readonly cause: string }) | null;
}

export interface Spill extends Remark {
  readonly onElectronics: boolean;
  rinsedAt: string | null;
}

export interface Soak {
  readonly cleaner: string;
  readonly mostMinutes: number;
  readonly startedAt: string;
  endedAt: string | null;
}

export interface Drained {
  readonly volumeMl: number;
  readonly how: 'jug' | 'scale';
  /** the waste container it went into; null where it is kept or not yet poured away */
  readonly wasteId: string | null;
}

export interface Rinsed {
  readonly liquid: RinseLiquid;
  readonly volumeMl: number;
}

export interface WaterRead {
  readonly ph: number | null;
  readonly clarity: Clarity;
}

export interface Cause {
  readonly cause: CauseKey;
  readonly suspect: Suspect;
  /** the part that is suspected, where one is */
  readonly item: string | null;
  /** something stayed inside: "clean" is not claimed */
  readonly particlesStayed: boolean;
  readonly text: string;
}

export const SWAP_ACTIONS = ['renewed', 'replaced', 'removed', 'fitted'] as const;
export type SwapAction = (typeof SWAP_ACTIONS)[number];

export interface Swapped {
  readonly item: string;
  readonly action: SwapAction;
  /** what went in, or where the removed part lies now */
  readonly text: string;
  /** mL inside a part that was taken out full and capped */
  readonly heldMl: number;
  /** what stood on the bag of what went in; missing: nobody kept it */
  readonly bag?: LotOnBag;
}

export interface Used {
  readonly itemId: string;
  readonly itemName: string;
  readonly count: number;
}

export interface TemporaryFix {
  readonly what: string;
  readonly awaits: string;
  /** day by which the final fix must be in */
  readonly until: string;
  readonly limits: readonly UseLimit[];
  /** the job that the final fix is; missing: nobody said */
  readonly then?: JobKind;
}

/** What stays to be done, and the day for it. */
export interface Owed {
  readonly kind: OwedKind;
  readonly what: string;
  readonly until: string;
}

/** A time off the bench, with what it waited for. */
export interface Wait extends Waiting, Made {
  readonly resumed: Made | null;
  /** entries that others were told of when it began: their follow-ups are open, their lots flagged */
  readonly told: readonly string[];
}

/** A place without its seal: nothing under pressure goes in before it has one again. */
export interface BorrowedSeal extends Made {
  readonly from: string;
  /** where it went */
  readonly text: string;
  readonly fitted: Made | null;
}

export interface PhotoTaken {
  readonly photoId: string;
  readonly caption: string;
}

export interface Rescoped {
  readonly kind: JobKind;
  readonly reason: string;
}

/** What the entries of a service make of it. Empty in a commissioning. */
/** How a drain ended: judged once, when its step was closed, and kept so. */
export interface DrainEnd {
  readonly at: string;
  /** mL that came, and that should have come; null where nobody could tell */
  readonly cameMl: number;
  readonly shouldMl: number | null;
  /** mL inside by the book, below nothing where more came than was thought to be in; null: nobody knows */
  readonly leftMl: number | null;
  readonly leftSdMl: number;
  readonly verdict: LedgerVerdict;
  /** parts and tubes that hold what is left, most of it first: mL by id; empty where only volumes are known */
  readonly where: readonly { readonly id: string; readonly ml: number }[];
}

export interface ServiceState {
  /** every liquid that went in, came out or was lost, in the order it happened */
  readonly flows: Flow[];
  readonly drains: (Drained & Made)[];
  /** null before the drain's step was closed */
  drained: DrainEnd | null;
  readonly rinses: (Rinsed & Made)[];
  readonly waters: (WaterRead & Made)[];
  readonly soaks: Soak[];
  /** the last look at each item, and the first one where there were several: before and after cleaning */
  readonly sheet: Map<string, { first: ItemFindings; last: ItemFindings; looks: number }>;
  cause: (Cause & Made) | null;
  readonly swaps: (Swapped & Made)[];
  readonly used: (Used & Made)[];
  readonly temporaryFixes: (TemporaryFix & Made)[];
  readonly photos: (PhotoTaken & Made)[];
  readonly rescopes: (Rescoped & Made)[];
}

export interface Coolant {
  readonly productId: string;
  readonly productName: string;
  readonly lotId: string | null;
  readonly lot: string | null;
}

/** A dry test that was begun anew. */
export interface PastDryTest {
  readonly testNumber: number;
  readonly verdict: 'pass' | 'fail' | 'not-yet';
  /** mbar·L/s; null before a slope could be told */
  readonly leakMbarLs: number | null;
  readonly readings: number;
  /** why it was begun anew */
  readonly ended: string;
}

export interface DryReading {
  readonly gaugeKpa: number;
  readonly tempC: number;
  /** kPa; where a barometer stands beside the gauge */
  readonly atmosphereKpa?: number;
}

export interface PartTest {
  readonly part: string;
  readonly tight: boolean;
  readonly how: string;
  readonly leftMl: number;
}

/** g, and mL inside by the book when it was weighed first */
export interface Weights {
  before: { readonly massG: number; readonly insideMl: number | null; readonly insideSdMl: number } | null;
  after: { readonly massG: number } | null;
}

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
  readonly leaks: Leak[];
  readonly spills: Spill[];
  readonly fillTroubles: FillTrouble[];
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
  readonly bleedCycles: Stamped<BleedCycle>[];
  readonly baselines: Stamped<BaselineReading>[];
  /** of a service: measured before anything was touched */
  readonly befores: Stamped<BaselineReading>[];
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
  leaks: [],
  spills: [],
  fillTroubles: [],
  overrides: [],
  coolant: null,
  pours: [],
  outflows: [],
  bleedCycles: [],
  baselines: [],
  befores: [],
  service: {
    flows: [],
    drains: [],
    drained: null,
    rinses: [],
    waters: [],
    soaks: [],
    sheet: new Map(),
    cause: null,
    swaps: [],
    used: [],
    temporaryFixes: [],
    photos: [],
    rescopes: [],
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

export function switchPump(state: RunState, on: boolean, at: string): void {
  const last = state.pumpRuns.at(-1);
  if (on && (!last || last.stoppedAt !== null)) state.pumpRuns.push({ startedAt: at, stoppedAt: null });
  if (!on && last?.stoppedAt === null) last.stoppedAt = at;
  state.pump = { on, since: at };
}

/** What was read before belongs to another test; what that came to is kept. */
export function beginDryTest(state: RunState, note: Remark, judged: { verdict: PastDryTest['verdict']; leakMbarLs: number } | null): void {
  state.pastDryTests = [
    ...state.pastDryTests,
    { testNumber: state.dryTestNumber, verdict: judged?.verdict ?? 'not-yet', leakMbarLs: judged?.leakMbarLs ?? null, readings: state.dryReadings.length, ended: note.text }, // prettier-ignore
  ];
  // a new list: the old one stays with the checkpoints that hold it
  state.dryReadings = [];
  state.dryTestNumber += 1;
  state.steps.find(({ kind }) => kind === 'dry-test')?.notes.push(note);
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
