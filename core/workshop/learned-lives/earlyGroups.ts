import { groupBy } from '../../base/numerics/groupBy.js';
import { seededRandom } from '../../base/random/random.js';
import { below, eventAges, Watched, type Life } from '../../base/statistics/lives.js';

/** A lot, or a make of a part, whose machines failed earlier than the others did. */
export interface EarlyGroup {
  readonly group: string;
  /** machines that hold or held it */
  readonly machines: number;
  readonly observed: number;
  readonly expected: number;
  /** by permutation, adjusted for how many groups were looked at (Holm) */
  readonly p: number;
}

export interface GroupedLife extends Life {
  readonly systemId: string;
  /** what it is of: lives are held against those of their own kind alone, since kinds last differently by their nature */
  readonly kind: string;
  /** lot or make, unlike any of another kind; null: not known, one of the others */
  readonly group: string | null;
}

/** failures below which a group is not looked at, chance below which it is named, and how often its members are drawn anew */
export const EARLY = { leastFailed: 3, below: 0.01, draws: 9999, seed: 1 } as const;
/** draws as large from which a group cannot be named any more, whatever comes (Besag & Clifford 1991, Biometrika 78, 301) */
const ENOUGH = Math.ceil(EARLY.below * (EARLY.draws + 1));

/** Fills of one machine in one group are no independent witnesses: its first failure counts, or its longest life. */
function oneEach(lives: readonly GroupedLife[]): GroupedLife[] {
  const kept = new Map<string, GroupedLife>();
  for (const life of lives) {
    const key = JSON.stringify([life.systemId, life.kind, life.group]);
    const known = kept.get(key);
    const isBetter =
      !known || (life.event !== known.event ? life.event : life.event ? life.months < known.months : life.months > known.months);
    if (isBetter) kept.set(key, life);
  }
  return [...kept.values()];
}

/** Failures of a life less those that all lives together let expect of its age (Nelson–Aalen; martingale residuals). */
function surpluses(lives: readonly Life[]): number[] {
  const watched = new Watched(lives);
  const ages = eventAges(lives);
  let hazard = 0;
  const sofar = [0, ...ages.map((months) => (hazard += watched.events(months) / watched.atRisk(months)))];
  /** hazard of all ages up to this one, itself included */
  const until = (months: number): number => {
    const before = below(ages, months);
    return sofar[ages[before] === months ? before + 1 : before] as number;
  };
  return lives.map(({ months, entryMonths, event }) => (event ? 1 : 0) - (until(months) - until(entryMonths)));
}

/** Chance that as many lives drawn from all of them together show so large a surplus. */
function chanceOf(all: readonly number[], size: number, surplus: number, seed: number): number {
  const random = seededRandom(seed);
  const places = all.map((_, index) => index);
  let asLarge = 0;
  for (let draw = 0; draw < EARLY.draws; draw += 1) {
    if (asLarge >= ENOUGH) return asLarge / draw;
    let sum = 0;
    for (let n = 0; n < size; n += 1) {
      const other = n + Math.floor(random.next() * (places.length - n));
      const picked = places[other] as number;
      places[other] = places[n] as number;
      places[n] = picked;
      sum += all[picked] as number;
    }
    if (sum >= surplus - 1e-12) asLarge += 1;
  }
  return (asLarge + 1) / (EARLY.draws + 1);
}

interface Looked {
  readonly group: string;
  readonly machines: number;
  readonly observed: number;
  readonly surplus: number;
  /** surpluses of all lives of its kind, itself among them */
  readonly all: readonly number[];
}

/** The groups of one kind that could show something: those with members enough, and others to be held against. */
function lookedAt(lives: readonly GroupedLife[]): Looked[] {
  const all = surpluses(lives);
  const places = lives.map((_, index) => index);
  return [...groupBy(places, (index) => lives[index]?.group ?? null)]
    .map(([group, members]) => ({
      group,
      machines: members.length,
      observed: members.filter((index) => lives[index]?.event).length,
      surplus: members.reduce((sum, index) => sum + (all[index] as number), 0),
      all,
    }))
    .filter(({ machines }) => machines >= EARLY.leastFailed && machines < lives.length);
}

/**
 * Groups that fail earlier than all others of their kind: the log-rank score of a group against members drawn at chance, one-sided, Holm's
 * step-down over all groups that could have `EARLY.leastFailed` failures. Counting only those that have them would name an equal lot in one
 * workshop of ten, since which are looked at depends on how they fail. "More often than chance", never a verdict on a maker.
 * @returns those below `EARLY.below`, the least likely first
 */
export function earlyGroups(lives: readonly GroupedLife[]): EarlyGroup[] {
  const kinds = groupBy(oneEach(lives), ({ kind }) => kind);
  const looked = [...kinds.values()]
    .flatMap(lookedAt)
    .map((each, index) => ({
      ...each,
      raw: each.observed >= EARLY.leastFailed && each.surplus > 0 ? chanceOf(each.all, each.machines, each.surplus, EARLY.seed + index) : 1,
    }))
    .sort((a, b) => a.raw - b.raw);
  let least = 0;
  return looked
    .map(({ group, machines, observed, surplus, raw }, index) => {
      least = Math.max(least, Math.min(1, raw * (looked.length - index)));
      return { group, machines, observed, expected: observed - surplus, p: least };
    })
    .filter(({ p }) => p < EARLY.below);
}
