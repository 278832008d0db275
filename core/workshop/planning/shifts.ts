import { addDays, instantIn, weekdayOf } from '../../base/units/calendar.js';
import type { Span } from './problem.js';

/** A technician's usual hours on one weekday, in minutes of the day on the workshop's clock. */
export interface Shift {
  readonly personId: string;
  /** 1 Monday … 7 Sunday */
  readonly weekday: number;
  readonly fromMinute: number;
  readonly toMinute: number;
}

export interface Absence {
  readonly personId: string;
  readonly fromDay: string;
  /** last day away */
  readonly toDay: string;
  /** of each of these days */
  readonly part: DayPart;
}

export type DayPart = 'whole' | 'morning' | 'afternoon';
/** Why somebody is away, as a code; what more there is to say is nobody's business. */
export const ABSENCE_WHYS = { holiday: 'holiday', ill: 'ill', course: 'course', elsewhere: 'works elsewhere', other: 'away' } as const;
export type AbsenceWhy = keyof typeof ABSENCE_WHYS;
export const DAY_PARTS: Readonly<Record<DayPart, string>> = { whole: 'whole days', morning: 'mornings', afternoon: 'afternoons' };

/** min of the day at which a morning ends and an afternoon begins */
export const HALF_DAY_MINUTE = 13 * 60;

/** Takes spans out of others. Both sorted, neither overlapping in itself. */
export function without(spans: readonly Span[], taken: readonly Span[]): Span[] {
  let rest: Span[] = [...spans];
  for (const { from, to } of taken)
    rest = rest.flatMap((span) =>
      to <= span.from || from >= span.to
        ? [span]
        : [...(from > span.from ? [{ from: span.from, to: from }] : []), ...(to < span.to ? [{ from: to, to: span.to }] : [])],
    );
  return rest;
}

/** Spans in order with those that touch or overlap joined. */
export function joined(spans: readonly Span[]): Span[] {
  const result: Span[] = [];
  for (const span of [...spans].sort((a, b) => a.from - b.from)) {
    const last = result.at(-1);
    if (last && span.from <= last.to) result[result.length - 1] = { from: last.from, to: Math.max(last.to, span.to) };
    else result.push(span);
  }
  return result;
}

/** When somebody is there over some days, on the workshop's clock, absences and what is agreed already taken out. */
export function shiftsOf(
  personId: string,
  zone: string,
  days: { readonly from: string; readonly count: number },
  shifts: readonly Shift[],
  absences: readonly Absence[],
  taken: readonly Span[] = [],
): Span[] {
  const spans: Span[] = [];
  for (let n = 0; n < days.count; n += 1) {
    const day = addDays(days.from, n);
    const away = absences.filter((absence) => absence.personId === personId && absence.fromDay <= day && day <= absence.toDay);
    const begins = away.some(({ part }) => part !== 'afternoon') ? HALF_DAY_MINUTE : 0;
    const ends = away.some(({ part }) => part !== 'morning') ? HALF_DAY_MINUTE : 24 * 60;
    if (away.some(({ part }) => part === 'whole')) continue;
    for (const { fromMinute, toMinute } of shifts.filter((shift) => shift.personId === personId && shift.weekday === weekdayOf(day))) {
      const [from, to] = [Math.max(begins, fromMinute), Math.min(ends, toMinute)];
      if (from < to) spans.push({ from: instantIn(zone, day, from), to: instantIn(zone, day, to) });
    }
  }
  return without(joined(spans), joined(taken));
}
