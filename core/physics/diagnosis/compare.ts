import { compareReadings, type PartChange, type ReadingDifference } from './compareReadings.js';
import type { LoadReading } from './loadReading.js';
import type { BaselineReading } from './reading.js';
import { kindOfPart, type ReadPart } from './sensors.js';

/** W; where nobody knew the power it is taken to be the same both times */
const SAME_POWER_W = 1;

export interface BaselineComparison extends PartChange {
  /** differences that make it "not comparable", and conditions that only one of them has */
  readonly differences: readonly ReadingDifference[];
  /** nobody knew the power of either: as long as it was the same */
  readonly powerUnknown: boolean;
}

/** @param part name of what is read: the sensor, which is the same in all that can be compared */
function asLoadReading(reading: BaselineReading, part: string, powerUnknown: boolean): LoadReading {
  const { powerW, coolantC, flowLph } = reading;
  return {
    roomC: reading.roomC,
    powersW: { [part]: powerUnknown ? SAME_POWER_W : (powerW ?? 0) },
    partsC: { [part]: reading.partC },
    coolantC: coolantC ?? undefined,
    flowLph: flowLph ?? undefined,
    // the old cooler's fans are others, and it may have had no pump
    pumpSpeed: reading.oldCooler ? undefined : reading.pumpPercent / 100,
    fanSpeed: reading.oldCooler ? undefined : reading.fanPercent / 100,
    workload: reading.workload,
    sensor: reading.sensor,
    statistic: reading.statistic,
    panels: reading.panels,
    oldCooler: reading.oldCooler,
    minutes: reading.durationMinutes,
    reachedFraction: reading.warming?.reachedFraction,
  };
}

/** A baseline as a reading of the one part that its sensor can mean; null where it could be several, or its power is not known. */
export function baselineAsReading(reading: BaselineReading, parts: readonly ReadPart[]): LoadReading | null {
  const kind = kindOfPart(reading.sensor);
  const meant = kind === null ? [] : parts.filter((part) => part.kind === kind);
  const [part] = meant;
  return part && meant.length === 1 && (reading.powerW ?? 0) > 0 ? asLoadReading(reading, part.part, false) : null;
}

/** Sensors that were read at one moment as one reading: what the parts draw together warms the coolant. null: none says which part it means. */
export function baselinesAsReading(together: readonly BaselineReading[], parts: readonly ReadPart[]): LoadReading | null {
  const [first, ...others] = together.flatMap((each) => baselineAsReading(each, parts) ?? []);
  if (!first || others.length === 0) return first ?? null;
  // of two sensors in one part the first counts; and which it was is said of one alone
  const { sensor: _, ...conditions } = first;
  return others.reduce<LoadReading>(
    (sum, { partsC, powersW }) => ({ ...sum, partsC: { ...partsC, ...sum.partsC }, powersW: { ...powersW, ...sum.powersW } }),
    conditions,
  );
}

/** Two baselines, at the room and the power of the first: a hotter room or more watts are no dirty loop. */
export function compareBaselines(before: BaselineReading, after: BaselineReading): BaselineComparison {
  const powerUnknown = !before.powerW && !after.powerW;
  const part = after.sensor;
  const [one, other] = [before, after].map((reading) => asLoadReading(reading, part, powerUnknown)) as [LoadReading, LoadReading];
  const { parts, differences } = compareReadings(one, other);
  return { ...(parts[part] as PartChange), differences, powerUnknown };
}

/** Readings of one setting before and after; `dusted` stands between them where it was read once more after a cleaning alone. */
export interface ReadPair {
  readonly before: BaselineReading;
  readonly dusted: BaselineReading | null;
  readonly after: BaselineReading;
}

function pairFor(befores: readonly BaselineReading[], after: BaselineReading): ReadPair | null {
  const own = befores.filter(({ setting }) => setting === after.setting);
  const dusted = own.findLast((each) => each.dusted === true) ?? null;
  const untouched = own.findLast((each) => each.dusted !== true);
  if (untouched) return { before: untouched, dusted, after };
  return dusted && { before: dusted, dusted: null, after };
}

/** A pair for each sensor that was read both times in one setting, the last of each, in the order in which they were read. */
export function pairsOf(befores: readonly BaselineReading[], afters: readonly BaselineReading[]): ReadPair[] {
  const found = new Map<string, ReadPair>();
  for (const after of afters) {
    const pair = pairFor(befores.filter(({ sensor }) => sensor === after.sensor), after); // prettier-ignore
    if (pair) found.set(after.sensor, pair);
  }
  if (found.size > 0) return [...found.values()];
  // other sensors both times: what is not alike is said
  const unlike = afters.flatMap((after) => pairFor(befores, after) ?? []).at(-1);
  return unlike ? [unlike] : [];
}
