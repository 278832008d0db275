import { allPowerW, READING_ERRORS, reachedOf, type LoadReading } from './loadReading.js';

/** Conditions that may differ and still be the same ones. */
export const ALIKE = {
  /** share of full speed */
  setting: 0.05,
  /** the larger power over the smaller one */
  powerRatio: 1.25,
  /** of a part's share of the whole heat, where no coolant was measured */
  shareOfHeat: 0.05,
  /** standard deviations that a verdict needs */
  verdictSd: 2,
} as const;

const WORDED = ['workload', 'sensor', 'statistic', 'panels'] as const;
const SETTINGS = ['pumpSpeed', 'fanSpeed'] as const;
type Worded = (typeof WORDED)[number];
type Setting = (typeof SETTINGS)[number];

/** Why two readings are unlike; `missing` alone keeps nothing from being compared. */
export type ReadingDifference =
  | { readonly what: 'unlike'; readonly condition: Worded | 'profile' }
  | { readonly what: 'setting'; readonly condition: Setting; readonly before: number; readonly after: number }
  | { readonly what: 'missing'; readonly condition: Worded | Setting | 'coolantC'; readonly in: 'before' | 'after' }
  | { readonly what: 'not-warm'; readonly in: 'before' | 'after'; readonly reached: number }
  | { readonly what: 'power'; readonly part: string; readonly beforeW: number; readonly afterW: number }
  | { readonly what: 'share-of-heat'; readonly part: string }
  | { readonly what: 'changed-part' | 'no-power' | 'part-missing'; readonly part: string };

export type ReadingVerdict = 'cooler' | 'hotter' | 'as-before' | 'not-comparable';

export interface PartChange {
  /** K at the power of before; null where barred */
  readonly changeK: number | null;
  readonly sdK: number | null;
  readonly changeKPerW: number | null;
  readonly verdict: ReadingVerdict;
  /** better although its task was harder, or worse although it was easier: the change is that much at least */
  readonly atLeast?: true;
}

export interface ReadingComparison {
  readonly comparable: boolean;
  readonly differences: readonly ReadingDifference[];
  readonly parts: Readonly<Record<string, PartChange>>;
}

const BARRED: PartChange = { changeK: null, sdK: null, changeKPerW: null, verdict: 'not-comparable' };

/**
 * Two readings of one machine, a part at a time, at the power and the heat of the first one: a hotter room, more watts or a shorter test
 * are no dirt. Where the coolant was measured both times, part over coolant and coolant over room are brought over on their own.
 */
export function compareReadings(before: LoadReading, after: LoadReading): ReadingComparison {
  const whole = wholeDifferences(before, after);
  const ids = [...new Set([...Object.keys(before.partsC), ...Object.keys(after.partsC)])];
  const byCoolant = before.coolantC !== undefined && after.coolantC !== undefined;
  const own = new Map(ids.map((id) => [id, partDifferences(before, after, id, byCoolant)]));
  const bars = whole.filter(({ what }) => what !== 'missing');
  const parts = Object.fromEntries(
    ids.map((id) => {
      const against = [...bars, ...(own.get(id) ?? [])];
      return [id, against.length === 0 ? changeOf(before, after, id, byCoolant) : changeAtLeast(before, after, id, against)];
    }),
  );
  return {
    comparable: bars.length === 0 && [...own.values()].some((each) => each.length === 0),
    differences: [...whole, ...[...own.values()].flat()],
    parts,
  };
}

function wholeDifferences(before: LoadReading, after: LoadReading): ReadingDifference[] {
  const found: ReadingDifference[] = [];
  for (const condition of [...WORDED, ...SETTINGS, 'coolantC'] as const) {
    const [a, b] = [before[condition], after[condition]];
    if (a === undefined && b === undefined) continue;
    if (a === undefined || b === undefined) found.push({ what: 'missing', condition, in: a === undefined ? 'before' : 'after' });
  }
  for (const condition of WORDED) {
    const [a, b] = [before[condition], after[condition]];
    if (a !== undefined && b !== undefined && plain(a) !== plain(b)) found.push({ what: 'unlike', condition });
  }
  if (!sameProfile(before, after)) found.push({ what: 'unlike', condition: 'profile' });
  for (const condition of SETTINGS) {
    const [a, b] = [before[condition], after[condition]];
    if (a !== undefined && b !== undefined && isMoved(a, b)) found.push({ what: 'setting', condition, before: a, after: b });
  }
  for (const [side, reading] of [['before', before], ['after', after]] as const) {
    const reached = reachedOf(reading);
    if (reached < READING_ERRORS.leastReached) found.push({ what: 'not-warm', in: side, reached });
  } // prettier-ignore
  return found;
}

const plain = (words: string): string => words.trim().toLowerCase();
/** what a computer rounds is no setting of its own */
const ROUNDING = 1e-9;
/** Whether two settings are further apart than one that is the same. */
export const isMoved = (a: number, b: number): boolean => Math.abs(a - b) > ALIKE.setting + ROUNDING;

/** Settings that go by name alone are the same where the names are; figures of pump and fans, where both have them, say it better than names. */
export const sameProfile = (a: LoadReading, b: LoadReading): boolean =>
  a.profile === undefined ||
  b.profile === undefined ||
  plain(a.profile) === plain(b.profile) ||
  SETTINGS.every((condition) => a[condition] !== undefined && b[condition] !== undefined);

function partDifferences(before: LoadReading, after: LoadReading, part: string, byCoolant: boolean): ReadingDifference[] {
  const [p, q] = [before.powersW[part], after.powersW[part]];
  if (before.partsC[part] === undefined || after.partsC[part] === undefined) return [{ what: 'part-missing', part }];
  if (!p || !q) return [{ what: 'no-power', part }];
  const found: ReadingDifference[] = [];
  if (Math.max(p, q) > ALIKE.powerRatio * Math.min(p, q) * (1 + ROUNDING)) found.push({ what: 'power', part, beforeW: p, afterW: q });
  const [share, later] = [p / allPowerW(before), q / allPowerW(after)];
  const isMovedShare = Math.abs(later - share) > ALIKE.shareOfHeat * share * (1 + ROUNDING);
  if (!byCoolant && Object.keys({ ...before.powersW, ...after.powersW }).length > 1 && isMovedShare)
    found.push({ what: 'share-of-heat', part });
  if (before.changed?.includes(part) || after.changed?.includes(part)) found.push({ what: 'changed-part', part });
  return found;
}

interface Estimate {
  readonly value: number;
  readonly variance: number;
}

/** At its end: a reading that was still warming rises by half of what may be missing, give or take as much. */
function ended(reading: LoadReading, part: string) {
  const missing = (1 / reachedOf(reading) - 1) / 2;
  const partC = reading.partsC[part] ?? NaN;
  const [partRise, coolantRise] = [partC, reading.coolantC ?? NaN].map((c) => (c - reading.roomC) * missing) as [number, number];
  return { partC: partC + partRise, coolantC: (reading.coolantC ?? NaN) + coolantRise, partRise, coolantRise };
}

/** The part over the room as it would stand at other powers: `p0` of the part and `all0` of all. */
function broughtTo(reading: LoadReading, part: string, byCoolant: boolean, p0: number, all0: number): Estimate {
  const { partC, coolantC, partRise, coolantRise } = ended(reading, part);
  const p = reading.powersW[part] ?? NaN;
  const all = allPowerW(reading);
  const { partK, roomK, coolantK, powerShare } = READING_ERRORS;
  const own = p0 / p;
  if (!byCoolant) {
    const value = (partC - reading.roomC) * own;
    return { value, variance: own ** 2 * (partK ** 2 + roomK ** 2 + partRise ** 2) + (powerShare * value) ** 2 };
  }
  const whole = all0 / all;
  const [overCoolant, overRoom] = [(partC - coolantC) * own, (coolantC - reading.roomC) * whole];
  const byPower = Object.entries(reading.powersW).reduce((sum, [id, watts]) => {
    const slope = (id === part ? overCoolant / watts : 0) + overRoom / all;
    return sum + (slope * powerShare * watts) ** 2;
  }, 0);
  const byWarming = own * (partRise - coolantRise) + whole * coolantRise;
  return {
    value: overCoolant + overRoom,
    variance: (own * partK) ** 2 + ((whole - own) * coolantK) ** 2 + (whole * roomK) ** 2 + byPower + byWarming ** 2,
  };
}

function changeOf(before: LoadReading, after: LoadReading, part: string, byCoolant: boolean): PartChange {
  const p = before.powersW[part] ?? NaN;
  const all = allPowerW(before);
  const [a, b] = [before, after].map((reading) => broughtTo(reading, part, byCoolant, p, all)) as [Estimate, Estimate];
  const [changeK, sdK] = [b.value - a.value, Math.sqrt(a.variance + b.variance)];
  const verdict = Math.abs(changeK) < ALIKE.verdictSd * sdK ? 'as-before' : changeK < 0 ? 'cooler' : 'hotter';
  return { changeK, sdK, changeKPerW: changeK / p, verdict };
}

/** Which way a difference moves the later task; null: it tells nothing of how hard it was. */
function taskOf(difference: ReadingDifference, before: LoadReading, after: LoadReading): 'harder' | 'easier' | null {
  if (difference.what === 'setting') return difference.after < difference.before ? 'harder' : 'easier';
  if (difference.what === 'power') return difference.afterW > difference.beforeW ? 'harder' : 'easier';
  if (difference.what !== 'share-of-heat') return null;
  const [p, q] = [before, after].map(({ powersW }) => powersW[difference.part] ?? NaN) as [number, number];
  const [all, later] = [allPowerW(before), allPowerW(after)];
  return later >= all && q >= p ? 'harder' : later <= all && q <= p ? 'easier' : null;
}

/** Cooler although its task was harder is cooler by that much at least, and the other way round. */
function changeAtLeast(before: LoadReading, after: LoadReading, part: string, against: readonly ReadingDifference[]): PartChange {
  const tasks = new Set(against.map((each) => taskOf(each, before, after)));
  const [task] = tasks;
  if (tasks.size !== 1 || task === null) return BARRED;
  const [a, b] = [before, after].map((reading): Estimate => {
    const { partC, partRise } = ended(reading, part);
    return { value: partC - reading.roomC, variance: READING_ERRORS.partK ** 2 + READING_ERRORS.roomK ** 2 + partRise ** 2 };
  }) as [Estimate, Estimate];
  const [changeK, sdK] = [b.value - a.value, Math.sqrt(a.variance + b.variance)];
  const verdict = task === 'harder' ? 'cooler' : 'hotter';
  const isSure = (verdict === 'cooler' ? -changeK : changeK) >= ALIKE.verdictSd * sdK;
  return isSure ? { changeK, sdK, changeKPerW: changeK / (before.powersW[part] ?? NaN), verdict, atLeast: true } : BARRED;
}
