import { seededRandom } from '../../base/random/random.js';
import { atRiskAt, eventAges, eventsAt, type Life } from '../../base/statistics/lives.js';

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
  readonly group: string;
}

/** failures below which a group is not looked at, chance below which it is named, and how often its members are drawn anew */
export const EARLY = { leastFailed: 3, below: 0.01, draws: 9999, seed: 1 } as const;

/** Fills of one machine in one group are no independent witnesses: its first failure counts, or its longest life. */
function oneEach(lives: readonly GroupedLife[]): GroupedLife[] {
  const kept = new Map<string, GroupedLife>();
  for (const life of lives) {
    const key = `${life.systemId} ${life.group}`;
    const known = kept.get(key);
    const isBetter =
      !known || (life.event !== known.event ? life.event : life.event ? life.months < known.months : life.months > known.months);
    if (isBetter) kept.set(key, life);
  }
  return [...kept.values()];
}

/** Failures of a life less those that all lives together let expect of its age (Nelson–Aalen; martingale residuals). */
function surpluses(lives: readonly Life[]): number[] {
  const steps = eventAges(lives).map((months) => ({ months, hazard: eventsAt(lives, months) / atRiskAt(lives, months) }));
  return lives.map(({ months, entryMonths, event }) => {
    const expected = steps.reduce((sum, step) => (step.months > entryMonths && step.months <= months ? sum + step.hazard : sum), 0);
    return (event ? 1 : 0) - expected;
  });
}

/** Chance that as many lives drawn from all of them together show so large a surplus. */
function chanceOf(all: readonly number[], size: number, surplus: number, seed: number): number {
  const random = seededRandom(seed);
  const places = all.map((_, index) => index);
  let asLarge = 0;
  for (let draw = 0; draw < EARLY.draws; draw += 1) {
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

/**
 * Groups that fail earlier than all others: the log-rank score of a group against members drawn at chance, one-sided, Holm's step-down over
 * all groups that could have `EARLY.leastFailed` failures. Counting only those that have them would name an equal lot in one workshop of
 * ten, since which are looked at depends on how they fail. "More often than chance", never a verdict on a maker.
 * @param lives of one kind of coolant or part: what lasts differently by its nature is not compared
 * @returns those below `EARLY.below`, the least likely first
 */
export function earlyGroups(lives: readonly GroupedLife[]): EarlyGroup[] {
  const own = oneEach(lives);
  const all = surpluses(own);
  const members = new Map<string, number[]>();
  own.forEach(({ group }, index) => members.set(group, [...(members.get(group) ?? []), index]));
  const looked = [...members]
    .map(([group, places]) => {
      const observed = places.filter((index) => own[index]?.event).length;
      const surplus = places.reduce((sum, index) => sum + (all[index] as number), 0);
      return { group, machines: places.length, observed, expected: observed - surplus, surplus };
    })
    .filter(({ machines }) => machines >= EARLY.leastFailed && machines < own.length)
    .map((each, index) => ({
      ...each,
      raw: each.observed >= EARLY.leastFailed && each.surplus > 0 ? chanceOf(all, each.machines, each.surplus, EARLY.seed + index) : 1,
    }))
    .sort((a, b) => a.raw - b.raw);
  let least = 0;
  return looked
    .map(({ group, machines, observed, expected, raw }, index) => {
      least = Math.max(least, Math.min(1, raw * (looked.length - index)));
      return { group, machines, observed, expected, p: least };
    })
    .filter(({ p }) => p < EARLY.below);
}
