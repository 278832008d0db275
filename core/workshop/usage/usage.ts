import { daysBetween } from '../../base/units/calendar.js';
import { DEFAULT_HOURS_PER_DAY, LEAST_SPAN_DAYS } from './defaults.js';

/** Where a figure of how a machine is used comes from, the best first. */
export const USAGE_SOURCES = ['meter', 'log', 'owner', 'default'] as const;
export type UsageSource = (typeof USAGE_SOURCES)[number];
export const USAGE_SOURCE_WORDS: Readonly<Record<UsageSource, string>> = {
  meter: 'by its meter',
  log: 'by its log',
  owner: 'by its owner',
  default: 'assumed',
};

/** What somebody read off an hour meter, or what a log that was taken from the machine comes to. */
export interface UsageReading {
  readonly id: string;
  readonly source: 'meter' | 'log';
  /** first day of a log; null for a meter */
  readonly fromOn: string | null;
  /** day of the reading, or last day of the log */
  readonly on: string;
  /** a meter's count, or the hours that the log ran */
  readonly hours: number;
  /** mean coolant temperature while it ran, °C; null: not measured */
  readonly meanCoolantC: number | null;
}

export interface UsageInput {
  readonly readings: readonly UsageReading[];
  readonly ownerHoursPerDay: number | null;
  readonly ownerCoolantC: number | null;
  /** day of the fill; readings since then go before older ones */
  readonly since: string;
}

export interface UsageFigure {
  readonly source: UsageSource;
  readonly value: number;
  /** first and last day it rests on; null where it is somebody's word */
  readonly span: { readonly from: string; readonly to: string } | null;
}

/** Every figure there is, the best first. Hours a day always end with the default; a temperature may be unknown. */
export interface Usage {
  readonly hoursPerDay: readonly UsageFigure[];
  readonly coolantC: readonly UsageFigure[];
}

type Span = { readonly from: string; readonly to: string; readonly hours: number; readonly meanCoolantC: number | null };

/** Stretches between readings of one meter. A count that fell is a new meter, or one that was set back: no stretch. */
function meterSpans(readings: readonly UsageReading[]): Span[] {
  const ordered = readings.filter(({ source }) => source === 'meter').sort((a, b) => a.on.localeCompare(b.on) || a.hours - b.hours);
  return ordered.slice(1).flatMap((reading, index) => {
    const before = ordered[index] as UsageReading;
    const hours = reading.hours - before.hours;
    return hours < 0 || reading.on === before.on ? [] : [{ from: before.on, to: reading.on, hours, meanCoolantC: reading.meanCoolantC }];
  });
}

const logSpans = (readings: readonly UsageReading[]): Span[] =>
  readings
    .filter((reading) => reading.source === 'log' && reading.fromOn !== null)
    .map(({ fromOn, on, hours, meanCoolantC }) => ({ from: fromOn as string, to: on, hours, meanCoolantC }));

/** A log of one day spans a day; from one reading of a meter to the next, the nights between them. */
const daysOf = (spans: readonly Span[], source: 'meter' | 'log'): number =>
  spans.reduce((sum, { from, to }) => sum + daysBetween(from, to) + (source === 'log' ? 1 : 0), 0);

/** Hours a day and mean temperature of some stretches together; what began since the fill counts alone where it is long enough. */
function figures(
  spans: readonly Span[],
  source: 'meter' | 'log',
  since: string,
): { hours: UsageFigure | null; coolant: UsageFigure | null } {
  const own = spans.filter(({ from }) => from >= since);
  const used = daysOf(own, source) >= LEAST_SPAN_DAYS ? own : spans;
  const days = daysOf(used, source);
  if (days < LEAST_SPAN_DAYS) return { hours: null, coolant: null };
  const span = {
    from: used.map(({ from }) => from).sort()[0] as string,
    to: used
      .map(({ to }) => to)
      .sort()
      .at(-1) as string,
  };
  const warm = used.filter(({ meanCoolantC, hours }) => meanCoolantC !== null && hours > 0);
  const warmHours = warm.reduce((sum, { hours }) => sum + hours, 0);
  return {
    hours: { source, value: used.reduce((sum, { hours }) => sum + hours, 0) / days, span },
    coolant:
      warmHours > 0
        ? { source, value: warm.reduce((sum, { hours, meanCoolantC }) => sum + hours * (meanCoolantC as number), 0) / warmHours, span }
        : null,
  };
}

/**
 * How a machine is used, every source beside the others: an hour meter before a log, a log before the owner's word, that
 * before the default. Two logs that overlap are counted twice in both hours and days, so their rate stays right.
 */
export function usageOf({ readings, ownerHoursPerDay, ownerCoolantC, since }: UsageInput): Usage {
  const meter = figures(meterSpans(readings), 'meter', since);
  const log = figures(logSpans(readings), 'log', since);
  const known = (figure: UsageFigure | null): UsageFigure[] => (figure === null ? [] : [figure]);
  const said = (value: number | null): UsageFigure[] => (value === null ? [] : [{ source: 'owner', value, span: null }]);
  return {
    hoursPerDay: [
      ...known(meter.hours),
      ...known(log.hours),
      ...said(ownerHoursPerDay),
      { source: 'default', value: DEFAULT_HOURS_PER_DAY, span: null },
    ],
    coolantC: [...known(meter.coolant), ...known(log.coolant), ...said(ownerCoolantC)],
  };
}

/** The figures that count, as the clocks take them. */
export function usedFigures(usage: Usage): {
  hoursPerDay: number | null;
  hoursSource: UsageSource;
  meanCoolantC: number | null;
  coolantSource: UsageSource;
} {
  const hours = usage.hoursPerDay[0] as UsageFigure;
  const coolant = usage.coolantC[0];
  return {
    hoursPerDay: hours.source === 'default' ? null : hours.value,
    hoursSource: hours.source,
    meanCoolantC: coolant?.value ?? null,
    coolantSource: coolant?.source ?? 'default',
  };
}
