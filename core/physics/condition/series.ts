import { addDays, daysBetween } from '../../base/units/calendar.js';
import { DAYS_PER_YEAR } from '../../base/units/physics.js';
import { middleOf } from '../../base/statistics/median.js';
import { pettitt } from '../../base/statistics/pettitt.js';
import { theilSen } from '../../base/statistics/theilSen.js';
import { ALIKE, isMoved, sameProfile } from '../diagnosis/compareReadings.js';
import { allPowerW, READING_ERRORS, reachedOf, type LoadReading } from '../diagnosis/loadReading.js';
import type { PartKind } from '../diagnosis/sensors.js';
import type { HeatLimits } from './limits.js';

/** A reading under load on its day, and where it comes from. */
export interface DatedReading {
  readonly id: string;
  readonly on: string;
  /** `log`: found in a log; `hand`: read in between; `before` and `after`: at a service or a hand-over */
  readonly source: 'log' | 'hand' | 'before' | 'after';
  readonly reading: LoadReading;
}

/** What was done to a machine that may move its readings. */
export const MARK_KINDS = ['filled', 'dusted', 'paste', 'part'] as const;
export type MarkKind = (typeof MARK_KINDS)[number];
export interface ConditionMark {
  readonly on: string;
  readonly kind: MarkKind;
  /** the part it was done to; null: all of it */
  readonly part: string | null;
  /** name of the coolant that went in, where it is known */
  readonly coolant?: string;
  /** it was written down by hand: its id, to strike it out */
  readonly id?: string;
}

/** One reading of one part. */
export interface ConditionPoint {
  readonly id: string;
  readonly on: string;
  readonly source: DatedReading['source'];
  /** K/W, part over room */
  readonly theta: number;
  readonly sd: number;
  /** K/W, part over coolant per watt of the part; null: coolant not measured */
  readonly toCoolant: number | null;
  /** K per watt of all parts, coolant over room */
  readonly toRoom: number | null;
  readonly powerW: number;
  /** why it does not count in the trend; null: it does */
  readonly left: 'settings' | 'still-warming' | 'old-cooler' | null;
}

export interface Crossing {
  readonly on: string;
  /** 95 %: the earlier and the later day; null: not before the end of what can be told */
  readonly lowOn: string | null;
  readonly highOn: string | null;
}

export interface ThetaLimit {
  readonly theta: number;
  readonly why: 'hot-day' | 'rise';
  /** `hot-day`: at so many watts, so hot, in such a room; `rise`: so much over the first reading since the mark */
  readonly powerW: number;
  readonly partC: number;
  readonly hotRoomC: number;
  readonly riseShare: number;
}

export interface PartCondition {
  readonly part: string;
  readonly points: readonly ConditionPoint[];
  /** those of them that the line, the limit and `now` rest on */
  readonly counted: readonly ConditionPoint[];
  /** the day from which the trend is taken: since the last thing that was done to it */
  readonly since: string | null;
  readonly limit: ThetaLimit | null;
  /** K/W on its best days, and by its newest readings; null: none counts */
  readonly best: number | null;
  readonly now: number | null;
  /** null: fewer than `TREND.leastPoints`, or all within `TREND.leastDays` */
  readonly trend: TrendLine | null;
  /** a step that explains it better than a line; its day is the first after it */
  readonly step: { readonly on: string; readonly by: number } | null;
  /** the newest reading already stands over the limit */
  readonly isOver: boolean;
  readonly crosses: Crossing | null;
}

/** A robust line through a part's readings, with the two that bound it (95 %): each goes through a point on the first day. */
export interface TrendLine {
  readonly fromOn: string;
  readonly perYear: number;
  readonly theta: number;
  /** null: too few readings to bound it */
  readonly low: { readonly perYear: number; readonly theta: number } | null;
  readonly high: { readonly perYear: number; readonly theta: number } | null;
}

export const TREND = {
  leastPoints: 5,
  /** days between the first and the last; less is weather */
  leastDays: 21,
  /** later than this nothing is told: a line is not drawn that far */
  mostDays: 1825,
  /** share of the way to its end from which a reading stands in a trend without being brought there */
  leastReached: 0.85,
  /** chance below which a step is one */
  stepP: 0.01,
} as const;

/**
 * K by which the part that rose most stands above its best days at the watts that it is usually read with, by its newest readings.
 * @returns null: no part has readings that can be held together
 */
export function risenMostK(conditions: readonly PartCondition[]): number | null {
  const risen = conditions.flatMap(({ best, now, counted }) => {
    if (best === null || now === null || counted.length < 2) return [];
    return [(now - best) * middleOf(counted.map(({ powerW }) => powerW))];
  });
  return risen.length === 0 ? null : Math.max(...risen);
}

/** readings that make a better beginning than one alone */
export const FIRST_FEW = 3;

function pointOf({ id, on, source, reading }: DatedReading, part: string): ConditionPoint | null {
  const [partC, powerW] = [reading.partsC[part], reading.powersW[part]];
  if (partC === undefined || !powerW) return null;
  const { partK, roomK, powerShare } = READING_ERRORS;
  const theta = (partC - reading.roomC) / powerW;
  const { coolantC } = reading;
  return {
    id,
    on,
    source,
    theta,
    sd: Math.hypot(Math.hypot(partK, roomK) / powerW, powerShare * theta),
    toCoolant: coolantC === undefined ? null : (partC - coolantC) / powerW,
    toRoom: coolantC === undefined ? null : (coolantC - reading.roomC) / allPowerW(reading),
    powerW,
    left: reading.oldCooler ? 'old-cooler' : reachedOf(reading) < TREND.leastReached ? 'still-warming' : null,
  };
}

/** What neither of them says keeps nothing apart. */
const areAlike = (a: LoadReading, b: LoadReading): boolean =>
  sameProfile(a, b) &&
  ([[a.pumpSpeed, b.pumpSpeed], [a.fanSpeed, b.fanSpeed]] as const).every(([one, other]) => one === undefined || other === undefined || !isMoved(one, other)); // prettier-ignore

/** A reading with pump and fans as most were taken, the newer of two as frequent: others do not count beside them. */
function usualOf(readings: readonly LoadReading[]): LoadReading | null {
  const kinds = new Map<string, { readonly reading: LoadReading; readonly last: number }>();
  readings.forEach((reading, last) => {
    const { pumpSpeed, fanSpeed, profile } = reading;
    kinds.set(`${pumpSpeed?.toFixed(2)} ${fanSpeed?.toFixed(2)} ${profile}`, { reading, last });
  });
  const counted = [...kinds.values()].map((kind) => ({ ...kind, count: readings.filter((each) => areAlike(each, kind.reading)).length }));
  return counted.sort((a, b) => b.count - a.count || b.last - a.last)[0]?.reading ?? null;
}

function withSettings(readings: readonly DatedReading[], points: readonly ConditionPoint[]): ConditionPoint[] {
  const byId = new Map(readings.map((each) => [each.id, each.reading]));
  const own = points.flatMap(({ id }) => byId.get(id) ?? []);
  // what another cooler did is no setting of this one
  const usual = usualOf(own.filter(({ oldCooler }) => oldCooler !== true));
  return points.map((point, index) =>
    point.left === null && usual && !areAlike(own[index] as LoadReading, usual) ? { ...point, left: 'settings' } : point,
  );
}

/** How each stretch between two marks began: the middle of its first values, in the order of the marks; a stretch without any is left out. */
export function beginnings(values: readonly { readonly on: string; readonly value: number }[], marks: readonly string[]): number[] {
  const starts = ['', ...[...marks].sort()];
  return starts.flatMap((from, index) => {
    const until = starts[index + 1];
    const stretch = values.filter(({ on }) => on >= from && (until === undefined || on < until));
    return stretch.length === 0 ? [] : [middleOf(stretch.slice(0, FIRST_FEW).map(({ value }) => value))];
  });
}

/** What a part showed on its best days: the lowest beginning. A service that mended nothing is no new one. */
function soundTheta(points: readonly ConditionPoint[], marks: readonly string[]): number | null {
  const valid = points.filter(({ left }) => left === null).map(({ on, theta }) => ({ on, value: theta }));
  const firsts = beginnings(valid, marks);
  return firsts.length === 0 ? null : Math.min(...firsts);
}

/** The nearer of two limits: what a part may reach on a hot day at the power it usually draws, and how far it may go from its best days. */
function limitOf(counted: readonly ConditionPoint[], sound: number | null, kind: PartKind | null, limits: HeatLimits): ThetaLimit | null {
  if (counted.length === 0 || sound === null) return null;
  const powerW = middleOf(counted.map((point) => point.powerW));
  const partC = limits.partC[kind ?? 'other'];
  const onHotDay = (partC - limits.hotRoomC) / powerW;
  const risen = (1 + limits.riseShare) * sound;
  const why = onHotDay < risen ? 'hot-day' : 'rise';
  return { theta: Math.min(onHotDay, risen), why, powerW, partC, hotRoomC: limits.hotRoomC, riseShare: limits.riseShare };
}

/**
 * What a machine's readings say of each part over time: K/W above the room, since the last thing that was done to it, as a robust line
 * with its interval and the days on which it meets its limit. A step is told from a creep: a line through a step meets nothing.
 */
export function conditionOf(
  parts: readonly { readonly part: string; readonly kind: PartKind | null }[],
  readings: readonly DatedReading[],
  marks: readonly ConditionMark[],
  limits: HeatLimits,
): PartCondition[] {
  const ordered = [...readings].sort((a, b) => a.on.localeCompare(b.on));
  return parts.map(({ part, kind }) => {
    const own = ordered.flatMap((each) => pointOf(each, part) ?? []);
    const points = withSettings(ordered, own);
    const days = marks.filter((mark) => mark.part === null || mark.part === part).map(({ on }) => on);
    const since = [...days].sort().at(-1);
    // what was read on the day of a mark before it was made is older; a hand-over's is the first of the new
    const counted = points.filter(({ on, source, left }) => left === null && (since === undefined || on > since || (on === since && source === 'after'))); // prettier-ignore
    const best = soundTheta(points, days);
    const limit = limitOf(counted, best, kind, limits);
    const trend = trendOf(counted, limit);
    const newest = counted.at(-1);
    // what a hand-over itself reads is the bench's to judge: it calls nobody in again on the same day
    const isSince = newest !== undefined && counted.length > 1 && (since === undefined || newest.on > since);
    return {
      part,
      points,
      counted,
      since: since ?? null,
      limit,
      best,
      now: counted.length === 0 ? null : middleOf(counted.slice(-FIRST_FEW).map(({ theta }) => theta)),
      trend: trend?.line ?? null,
      step: trend?.step ?? null,
      isOver: isSince && limit !== null && newest.theta - ALIKE.verdictSd * newest.sd > limit.theta,
      crosses: trend?.crosses ?? null,
    };
  });
}

function trendOf(counted: readonly ConditionPoint[], limit: ThetaLimit | null) {
  const [first, last] = [counted[0], counted.at(-1)];
  if (!first || !last || counted.length < TREND.leastPoints || daysBetween(first.on, last.on) < TREND.leastDays) return null;
  const days = counted.map(({ on, theta }) => ({ day: daysBetween(first.on, on), value: theta }));
  const found = theilSen(days, limit?.theta ?? null);
  if (!found) return null;
  const through = (slope: number) => ({
    perYear: slope * DAYS_PER_YEAR,
    theta: middleOf(days.map(({ day, value }) => value - slope * day)),
  });
  const bound = (slope: number | null) => (slope === null ? null : through(slope));
  const line: TrendLine = { fromOn: first.on, ...through(found.slope), low: bound(found.low), high: bound(found.high) };
  const step = stepOf(counted);
  // a line that may as well be level reaches nothing
  const rises = found.low !== null && found.low > 0 && step === null;
  const onDay = (day: number | null): string | null => (day === null || day > TREND.mostDays ? null : addDays(first.on, Math.floor(day)));
  const on = rises ? onDay(found.crossesDay) : null;
  const crosses = on === null ? null : { on, lowOn: onDay(found.crossesLowDay), highOn: onDay(found.crossesHighDay) };
  return { line, step, crosses };
}

/** A change of level: Pettitt finds the place, and neither side of it may go on rising by itself. */
function stepOf(counted: readonly ConditionPoint[]): PartCondition['step'] {
  const change = pettitt(counted.map(({ theta }) => theta));
  if (!change || change.p >= TREND.stepP) return null;
  const sides = [counted.slice(0, change.last + 1), counted.slice(change.last + 1)] as const;
  const isLevel = (side: readonly ConditionPoint[]): boolean => {
    const from = side[0]?.on ?? '';
    const trend = side.length < TREND.leastPoints ? null : theilSen(side.map(({ on, theta }) => ({ day: daysBetween(from, on), value: theta })), null); // prettier-ignore
    return trend === null || trend.low === null || trend.high === null || (trend.low <= 0 && trend.high >= 0);
  };
  if (!sides.every(isLevel)) return null;
  const middle = (side: readonly ConditionPoint[]): number => middleOf(side.map(({ theta }) => theta));
  const after = sides[1][0];
  return after ? { on: after.on, by: middle(sides[1]) - middle(sides[0]) } : null;
}

/** Two readings to hold against each other: from the best days and the newest, of the part that has gone furthest from its best. */
export function soundAndNow(
  conditions: readonly PartCondition[],
  readings: readonly DatedReading[],
): { sound: DatedReading; now: DatedReading } | null {
  const rise = ({ best, now }: PartCondition): number => (best !== null && now !== null ? now / best : 0);
  const furthest = [...conditions].sort((a, b) => rise(b) - rise(a))[0];
  const valid = furthest?.points.filter(({ left }) => left === null) ?? [];
  const newest = valid.at(-1);
  const best = furthest?.best ?? null;
  if (!newest || best === null) return null;
  const nearest = [...valid].filter(({ on }) => on < newest.on).sort((a, b) => Math.abs(a.theta - best) - Math.abs(b.theta - best))[0];
  const of = (id: string | undefined): DatedReading | undefined => readings.find((each) => each.id === id);
  const [sound, now] = [of(nearest?.id), of(newest.id)];
  return sound && now ? { sound, now } : null;
}

/** The earliest day on which any part meets its limit. */
export function firstCrossing(
  conditions: readonly PartCondition[],
): (Crossing & { readonly part: string; readonly limit: ThetaLimit }) | null {
  const all = conditions.flatMap(({ part, crosses, limit }) => (crosses && limit ? [{ ...crosses, part, limit }] : []));
  return all.sort((a, b) => a.on.localeCompare(b.on))[0] ?? null;
}
