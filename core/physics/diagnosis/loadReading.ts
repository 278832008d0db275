import type { ReadPart } from './sensors.js';

/** Who turns a group of fans. */
export const FAN_RULERS = ['board', 'hub', 'program', 'fixed'] as const;
export interface FanGroup {
  readonly name: string;
  /** 0 to 1 */
  readonly speed: number;
  readonly by: (typeof FAN_RULERS)[number];
}

/** What was read of a machine under load, with the conditions that make it comparable. Ids are those of the blocks. */
export interface LoadReading {
  readonly roomC: number;
  readonly powersW: Readonly<Record<string, number>>;
  readonly partsC: Readonly<Record<string, number>>;
  readonly coolantC?: number;
  readonly flowLph?: number;
  /** 0 to 1 */
  readonly pumpSpeed?: number;
  readonly fanSpeed?: number;
  /** where they are not all turned alike; `fanSpeed` is their middle then */
  readonly fanGroups?: readonly FanGroup[];
  readonly workload?: string;
  /** work done, by the program that loads it, in its own points */
  readonly score?: number;
  readonly clockMhz?: number;
  readonly powerLimitW?: number;
  readonly noiseDba?: number;
  readonly sensor?: string;
  readonly statistic?: string;
  readonly panels?: string;
  /** of load before the reading */
  readonly minutes?: number;
  /** share of the way to its end, where the warming was watched */
  readonly reachedFraction?: number;
  /** settings by the name that the owner's program or the workshop gives them */
  readonly profile?: string;
  /** read before the loop was built */
  readonly oldCooler?: boolean;
  /** blocks that were replaced since the other reading */
  readonly changed?: readonly string[];
}

/** What a reading under load is off by, one standard deviation each, independent in two readings (workshop practice). */
export const READING_ERRORS = {
  partK: 0.5,
  roomK: 0.3,
  coolantK: 0.3,
  powerShare: 0.02,
  flowShare: 0.03,
  /** min in which a loop of usual size comes to 63 % of its end, where nobody watched it */
  warmingMinutes: 10,
  /** a reading further from its end than this says nothing */
  leastReached: 0.05,
} as const;

/** How far it was from its steady state when it was read, 0 to 1. */
export const reachedOf = ({ reachedFraction, minutes }: LoadReading): number =>
  reachedFraction ?? (minutes === undefined ? 1 : 1 - Math.exp(-minutes / READING_ERRORS.warmingMinutes));

export const allPowerW = ({ powersW }: LoadReading): number => Object.values(powersW).reduce((sum, each) => sum + each, 0);

/** What was read before a loop was drawn speaks of "processor" and "graphics": of the one block of that kind, once there is one. */
export function asDrawn(reading: LoadReading, parts: readonly ReadPart[]): LoadReading {
  const drawn = (key: string): string => {
    if (parts.some(({ part }) => part === key)) return key;
    const meant = parts.filter(({ kind }) => kind === key);
    return meant.length === 1 ? (meant[0] as ReadPart).part : key;
  };
  const renamed = (by: Readonly<Record<string, number>>): Record<string, number> =>
    Object.fromEntries(Object.entries(by).map(([key, value]) => [drawn(key), value]));
  return { ...reading, partsC: renamed(reading.partsC), powersW: renamed(reading.powersW) };
}
