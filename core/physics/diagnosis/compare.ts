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
    pumpSpeed: reading.pumpPercent / 100,
    fanSpeed: reading.fanPercent / 100,
    workload: reading.workload,
    sensor: reading.sensor,
    statistic: reading.statistic,
    panels: reading.panels,
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

/** The pair of one setting, the last of each; null where a setting was measured only once. */
export function pairOf(befores: readonly BaselineReading[], afters: readonly BaselineReading[]): ReadPair | null {
  for (const after of [...afters].reverse()) {
    const own = [...befores].reverse().filter(({ setting }) => setting === after.setting);
    const dusted = own.find((each) => each.dusted === true) ?? null;
    const untouched = own.find((each) => each.dusted !== true);
    if (untouched) return { before: untouched, dusted, after };
    if (dusted) return { before: dusted, dusted: null, after };
  }
  return null;
}
