import { chiSquareAbove } from '../../base/statistics/chiSquare.js';
import { cholesky } from '../../base/numerics/cholesky.js';
import type { Fluid } from '../../machine/liquids/fluids.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import {
  CAUSE_AT,
  CAUSE_CHECKS,
  CAUSE_RANGES,
  CHECK_RULES,
  chanceOf,
  HEAT_CAUSES,
  signChance,
  TWINS,
  type CauseCheck,
  type HeatCause,
} from './causes.js';
import type { Breathing } from '../heat/steady.js';
import { fitSound, Hydraulics, showAt, type Shift, type Shown, type SoundTwin } from './heatTwin.js';
import { READING_ERRORS, type LoadReading } from './loadReading.js';

/** One figure of the later reading beside what the twin makes of it. L/h for the flow, °C for all others. */
export interface Evidence {
  readonly figure: 'flow' | 'coolant' | 'part';
  readonly part: string | null;
  readonly read: number;
  /** what a sound machine would show under this load, and what this cause shows where it fits best */
  readonly sound: number;
  readonly shows: number;
  readonly sd: number;
  readonly speaks: Speaks;
}
export type Speaks = 'for' | 'against' | 'neither';

export interface RankedCause {
  readonly evidence: readonly Evidence[];
  /** what was seen, where it tells this cause from others */
  readonly signs: readonly { readonly sign: string; readonly speaks: Speaks }[];
  readonly cause: HeatCause;
  /** id of the block or radiator; null: it acts on the whole loop */
  readonly part: string | null;
  readonly probability: number;
}

export interface NextCheck {
  readonly check: CauseCheck;
  readonly minutes: number;
  /** by which it is expected to lessen what is not known */
  readonly bits: number;
}

export interface Diagnosis {
  /** all causes, the likeliest first; together 1 */
  readonly causes: readonly RankedCause[];
  /** what tells most a minute first */
  readonly next: readonly NextCheck[];
  /** false: even the best of them does not make these readings likely; more than one thing is wrong, or a reading is */
  readonly explained: boolean;
}

/** a reading so far off is seen less often than this where the best cause is the true one */
const UNEXPLAINED = 0.001;

/** errors from which a figure speaks: moved from the sound machine, or missed by the cause */
const SPEAKS_SD = 2;
/** how many times likelier than usual, or less likely, a sign is where it speaks */
const SIGN_SPEAKS = 1.5;

/** How much a workshop's own confirmed causes weigh: each cause begins as if it had been found so many times. */
const PRIOR_WORTH = 3;
/**
 * Share of each cause among those that a workshop found so far, beside the even shares that it began with (Dirichlet prior).
 * @param confirmed how often each was found
 */
export function causePriors(confirmed: Readonly<Partial<Record<HeatCause, number>>>): Record<HeatCause, number> {
  const total = HEAT_CAUSES.reduce((sum, cause) => sum + PRIOR_WORTH + (confirmed[cause] ?? 0), 0);
  return Object.fromEntries(HEAT_CAUSES.map((cause) => [cause, (PRIOR_WORTH + (confirmed[cause] ?? 0)) / total])) as Record<
    HeatCause,
    number
  >;
}
const EVEN = causePriors({});

/** points at which a cause's range is looked through */
const POINTS = 16;
/** relative step of a derivative by a reading's figure */
const STEP = 0.5;

/** What was read both times, in one order: flow, coolant, parts. */
interface Compared {
  readonly flow: boolean;
  readonly coolant: boolean;
  readonly parts: readonly string[];
}

const comparedOf = (before: LoadReading, after: LoadReading): Compared => ({
  flow: before.flowLph !== undefined && after.flowLph !== undefined,
  coolant: before.coolantC !== undefined && after.coolantC !== undefined,
  parts: Object.keys(after.partsC).filter((id) => before.partsC[id] !== undefined && (before.powersW[id] ?? 0) > 0 && (after.powersW[id] ?? 0) > 0), // prettier-ignore
});

const figuresOf = (shown: Shown, { flow, coolant, parts }: Compared): number[] => [
  ...(flow ? [shown.flowLph] : []),
  ...(coolant ? [shown.coolantC] : []),
  ...parts.map((id) => shown.partsC[id] ?? NaN),
];

/** Every figure that a reading is off by: how to move it, and by how much it is wrong. */
type Nudge = (reading: LoadReading, sds: number) => LoadReading;

function nudgesOf(reading: LoadReading, measured: Compared | null): Nudge[] {
  const { partK, roomK, coolantK, powerShare, flowShare } = READING_ERRORS;
  const powers = Object.keys(reading.powersW).map((id): Nudge => (own, sds) => ({
    ...own,
    powersW: { ...own.powersW, [id]: (own.powersW[id] ?? 0) * (1 + powerShare * sds) },
  }));
  const room: Nudge = (own, sds) => ({ ...own, roomC: own.roomC + roomK * sds });
  if (!measured) return [room, ...powers];
  const parts = measured.parts.map((id): Nudge => (own, sds) => ({
    ...own,
    partsC: { ...own.partsC, [id]: (own.partsC[id] ?? 0) + partK * sds },
  }));
  const coolant: Nudge = (own, sds) => ({ ...own, coolantC: (own.coolantC ?? 0) + coolantK * sds });
  const flow: Nudge = (own, sds) => ({ ...own, flowLph: (own.flowLph ?? 0) * (1 + flowShare * sds) });
  return [room, ...powers, ...parts, ...(measured.coolant ? [coolant] : []), ...(measured.flow ? [flow] : [])];
}

/**
 * Covariance of what was read after minus what the sound twin says it should be: the errors of the earlier reading come in through the fit,
 * those of the later one through its room and its watts, and its own figures are off by theirs.
 */
function covarianceOf(hydraulics: Hydraulics, before: LoadReading, after: LoadReading, compared: Compared): number[][] | null {
  const shownAt = (a: LoadReading, b: LoadReading): number[] | null => {
    const twin = fitSound(hydraulics, a);
    const shown = twin && showAt(twin, b);
    return shown && figuresOf(shown, compared);
  };
  // a coolant or a flow that was read only before fits the twin all the same
  const usedBefore = { ...compared, coolant: before.coolantC !== undefined, flow: before.flowLph !== undefined };
  const columns = [
    ...nudgesOf(before, usedBefore).map((nudge) => [shownAt(nudge(before, STEP), after), shownAt(nudge(before, -STEP), after)]),
    ...nudgesOf(after, null).map((nudge) => [shownAt(before, nudge(after, STEP)), shownAt(before, nudge(after, -STEP))]),
  ];
  const { partK, coolantK, flowShare } = READING_ERRORS;
  const own = [
    ...(compared.flow ? [flowShare * (after.flowLph ?? 0)] : []),
    ...(compared.coolant ? [coolantK] : []),
    ...compared.parts.map(() => partK),
  ];
  const covariance = own.map((sd, row) => own.map((_, column) => (row === column ? sd * sd : 0)));
  for (const [up, down] of columns) {
    if (!up || !down) return null;
    const slope = up.map((value, index) => (value - (down[index] as number)) / (2 * STEP));
    slope.forEach((a, row) =>
      slope.forEach((b, column) => ((covariance[row] as number[])[column] = ((covariance[row] as number[])[column] as number) + a * b)),
    );
  }
  return covariance;
}

/** How a cause shifts the twin, `share` of the way through its range. */
export function shiftAt(cause: HeatCause, part: string | null, share: number): Shift {
  const R = CAUSE_RANGES;
  const along = ([from, to]: readonly [number, number]): number => from + (to - from) * share;
  const id = part ?? '';
  switch (cause) {
    case 'nothing':
      return {};
    case 'dust':
      return { air: { radiator: id, share: along(R.dustAir) } };
    case 'fan':
      return { air: { radiator: id, share: along(R.fanAir) } };
    case 'paste':
      return { paste: { block: id, kPerW: along(R.pasteKPerW) } };
    case 'block':
      return { loss: { part: id, factor: along(R.blockLoss) }, film: { block: id, factor: along(R.blockFilm) } };
    case 'radiator':
      return { loss: { part: id, factor: along(R.radiatorLoss) }, ua: { radiator: id, factor: along(R.radiatorUa) } };
    case 'pump':
      return { head: along(R.pumpHead) };
    case 'kink':
      return { flow: 1 - along(R.kinkFlow) };
    case 'air-inside':
      return { flow: 1 - along(R.airFlow), film: { block: null, factor: along(R.airFilm) } };
    case 'coolant':
      return { viscosity: along(R.viscosity) };
  }
}

/** Over a cause's range at one part, even steps. */
const shiftsOf = (cause: HeatCause, part: string | null): Shift[] =>
  cause === 'nothing' ? [{}] : Array.from({ length: POINTS }, (_, index) => shiftAt(cause, part, (index + 0.5) / POINTS));

interface Candidate {
  readonly cause: HeatCause;
  readonly part: string | null;
  readonly prior: number;
  likelihood: number;
  /** place in its range at which it fits best */
  best: Shift | null;
}

function candidatesOf(loop: LoopFile, blocks: readonly string[], priors: Readonly<Record<HeatCause, number>>): Candidate[] {
  const radiators = loop.components.filter(({ kind }) => kind === 'radiator').map(({ id }) => id);
  const placesOf = { loop: [null], block: blocks, radiator: radiators } as const;
  const possible = HEAT_CAUSES.filter((cause) => placesOf[CAUSE_AT[cause]].length > 0);
  const whole = possible.reduce((sum, cause) => sum + priors[cause], 0);
  return possible.flatMap((cause) => {
    const places = placesOf[CAUSE_AT[cause]];
    return places.map((part): Candidate => ({ cause, part, prior: priors[cause] / whole / places.length, likelihood: 0, best: null }));
  });
}

/** Mean likelihood over a cause's range, on the logarithm of the best of all so that none is lost. */
function logLikelihoods(
  twin: SoundTwin,
  after: LoadReading,
  compared: Compared,
  covariance: readonly number[][],
  shifts: readonly Shift[],
): number[] {
  const factored = cholesky(covariance);
  if (!factored) return shifts.map(() => 0);
  const read = figuresOf({ flowLph: after.flowLph ?? 0, coolantC: after.coolantC ?? 0, partsC: after.partsC }, compared);
  return shifts.map((shift) => {
    const shown = showAt(twin, after, shift);
    if (!shown) return -Infinity;
    const off = figuresOf(shown, compared).map((value, index) => (read[index] as number) - value);
    const solved = factored.solve(off);
    return -0.5 * off.reduce((sum, each, index) => sum + each * (solved[index] as number), 0);
  });
}

/**
 * What makes a machine worse than on its sound days, on the loop's own twin: each cause shifts it over its range, the likelihood of the
 * later reading is integrated over that, and what was seen multiplies in.
 * @param before from sound days
 * @param seen signs of `SEEN_SIGNS`
 * @param priors how likely each cause is before anything is read; missing: as likely as each other
 * @param breathing how its radiators breathe; missing: as usual for their places
 * @returns null where the twin has no steady state: nothing flows, or nothing gives heat off
 */
export function diagnose(
  loop: LoopFile,
  fluid: Fluid,
  before: LoadReading,
  after: LoadReading,
  seen: readonly string[] = [],
  priors: Readonly<Record<HeatCause, number>> = EVEN,
  breathing?: Breathing,
): Diagnosis | null {
  const conditions = { pumpSpeed: before.pumpSpeed ?? after.pumpSpeed, fanSpeed: before.fanSpeed ?? after.fanSpeed };
  const earlier = { ...before, ...conditions };
  const later = { ...after, pumpSpeed: after.pumpSpeed ?? conditions.pumpSpeed, fanSpeed: after.fanSpeed ?? conditions.fanSpeed };
  const compared = comparedOf(earlier, later);
  const hydraulics = new Hydraulics(loop, fluid, breathing);
  const twin = fitSound(hydraulics, earlier);
  if (!twin || !showAt(twin, later)) return null;
  const candidates = candidatesOf(loop, compared.parts, priors);
  const figures = (compared.flow ? 1 : 0) + (compared.coolant ? 1 : 0) + compared.parts.length;
  const covariance = figures === 0 ? null : covarianceOf(hydraulics, earlier, later, compared);
  let explained = true;
  if (covariance) {
    const shifts = candidates.map(({ cause, part }) => shiftsOf(cause, part));
    const logs = shifts.map((own) => logLikelihoods(twin, later, compared, covariance, own));
    const best = Math.max(...logs.flat());
    explained = chiSquareAbove(-2 * best, figures) >= UNEXPLAINED;
    candidates.forEach((candidate, index) => {
      const own = logs[index] as number[];
      candidate.likelihood = own.reduce((sum, log) => sum + Math.exp(log - best), 0) / own.length;
      candidate.best = shifts[index]?.[own.indexOf(Math.max(...own))] ?? null;
    });
  } else for (const candidate of candidates) candidate.likelihood = 1;
  shareBetweenTwins(candidates);
  const weights = candidates.map(({ cause, prior, likelihood }) => prior * likelihood * seen.reduce((product, sign) => product * signChance(sign, cause), 1)); // prettier-ignore
  const total = weights.reduce((sum, each) => sum + each, 0);
  // figures that no cause explains leave what was thought before
  const told = total > 0 && Number.isFinite(total) ? weights : candidates.map(({ prior }) => prior);
  const sum = told.reduce((whole, each) => whole + each, 0);
  const causes = candidates
    .map(({ cause, part, best }, index): RankedCause => ({
      cause,
      part,
      probability: (told[index] as number) / sum,
      evidence: covariance ? evidenceOf(twin, later, compared, covariance, best) : [],
      signs: seen.map((sign) => ({ sign, speaks: signSpeaks(sign, cause) })),
    }))
    .sort((a, b) => b.probability - a.probability);
  return { causes, next: nextChecks(causes, seen), explained };
}

/** What each figure says of a cause, where that fits best. */
function evidenceOf(
  twin: SoundTwin,
  after: LoadReading,
  compared: Compared,
  covariance: readonly number[][],
  best: Shift | null,
): Evidence[] {
  const [sound, shown] = [showAt(twin, after), best && showAt(twin, after, best)];
  if (!sound || !shown) return [];
  const read = figuresOf({ flowLph: after.flowLph ?? 0, coolantC: after.coolantC ?? 0, partsC: after.partsC }, compared);
  const [sounds, shows] = [figuresOf(sound, compared), figuresOf(shown, compared)];
  const names = [
    ...(compared.flow ? [{ figure: 'flow', part: null } as const] : []),
    ...(compared.coolant ? [{ figure: 'coolant', part: null } as const] : []),
    ...compared.parts.map((part) => ({ figure: 'part', part }) as const),
  ];
  return names.map((name, index): Evidence => {
    const own = { read: read[index] as number, sound: sounds[index] as number, shows: shows[index] as number };
    const sd = Math.sqrt(covariance[index]?.[index] ?? 0);
    const isMissed = Math.abs(own.read - own.shows) > SPEAKS_SD * sd;
    const hasMoved = Math.abs(own.read - own.sound) > SPEAKS_SD * sd;
    return { ...name, ...own, sd, speaks: isMissed ? 'against' : hasMoved ? 'for' : 'neither' };
  });
}

/** What was seen, held against how often it is seen with any cause. */
function signSpeaks(sign: string, cause: HeatCause): Speaks {
  const usual = HEAT_CAUSES.reduce((sum, each) => sum + signChance(sign, each), 0) / HEAT_CAUSES.length;
  const ratio = signChance(sign, cause) / usual;
  return ratio >= SIGN_SPEAKS ? 'for' : ratio <= 1 / SIGN_SPEAKS ? 'against' : 'neither';
}

/** No figure tells dust from a slow fan, or a weak pump from a kink: both are as likely as the two together. */
function shareBetweenTwins(candidates: readonly Candidate[]): void {
  for (const [one, other] of TWINS)
    for (const candidate of candidates.filter(({ cause }) => cause === one)) {
      const twin = candidates.find(({ cause, part }) => cause === other && part === candidate.part);
      if (!twin) continue;
      const mean = (candidate.likelihood + twin.likelihood) / 2;
      candidate.likelihood = mean;
      twin.likelihood = mean;
    }
}

const entropy = (shares: readonly number[]): number => shares.reduce((sum, p) => (p > 0 ? sum - p * Math.log2(p) : sum), 0);

/** Looks that were not made yet, by what they are expected to tell a minute. */
function nextChecks(causes: readonly RankedCause[], seen: readonly string[]): NextCheck[] {
  const now = entropy(causes.map(({ probability }) => probability));
  return CAUSE_CHECKS.filter((check) => !seen.includes(CHECK_RULES[check].found) && !seen.includes(CHECK_RULES[check].sound))
    .map((check): NextCheck => {
      const found = causes.map(({ cause, probability }) => probability * chanceOf(check, cause));
      const p = found.reduce((sum, each) => sum + each, 0);
      const sound = causes.map(({ probability }, index) => probability - (found[index] as number));
      const after = [found, sound].map((own, index) => {
        const whole = index === 0 ? p : 1 - p;
        return whole <= 0 ? 0 : whole * entropy(own.map((each) => each / whole));
      });
      return { check, minutes: CHECK_RULES[check].minutes, bits: Math.max(0, now - (after[0] as number) - (after[1] as number)) };
    })
    .sort((a, b) => b.bits / b.minutes - a.bits / a.minutes);
}
