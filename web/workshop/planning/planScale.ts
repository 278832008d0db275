import { QUARTER_MS } from '@core/workshop/planning/problem.js';
import { addDays, instantIn, weekdayOf } from '@core/base/units/calendar.js';

/** The board's time: working hours side by side on the workshop's clock; nights and free days are folded to a narrow strip. */
export interface PlanScale {
  readonly days: readonly { readonly day: string; readonly x: number; readonly width: number; readonly isFree: boolean }[];
  /** full hours that are drawn, where there is room for them */
  readonly hours: readonly { readonly x: number; readonly hour: number }[];
  readonly width: number;
  x(ms: number): number;
  /** the instant under a point, on a quarter of an hour */
  ms(x: number): number;
}

/** px of a night, and of a day on which nobody works */
const NIGHT = 10;
const FREE_DAY = 26;
/** px from which hours are named */
const HOUR_ROOM = 30;
const HOUR_MS = 3_600_000;
/** hours that are drawn where nobody has hours yet */
const USUAL = { from: 8, to: 18 } as const;

export interface Hours {
  readonly weekday: number;
  readonly fromMinute: number;
  readonly toMinute: number;
}

/**
 * @param hours when somebody works, of all people
 * @param count days with work that are drawn; free days between them come on top
 * @param held instants of work outside those hours, which open their hour: nothing that stands on the board may be folded away
 */
export function planScale(
  zone: string,
  first: string,
  count: number,
  width: number,
  hours: readonly Hours[],
  held: readonly number[] = [],
): PlanScale {
  const fromHour = Math.floor(Math.min(...(hours.length ? hours.map(({ fromMinute }) => fromMinute / 60) : [USUAL.from])));
  const toHour = Math.ceil(Math.max(...(hours.length ? hours.map(({ toMinute }) => toMinute / 60) : [USUAL.to])));
  const works = (day: string): boolean =>
    hours.length === 0 ||
    hours.some(({ weekday }) => weekday === weekdayOf(day)) ||
    held.some((ms) => ms >= instantIn(zone, day, 0) && ms < instantIn(zone, addDays(day, 1), 0));
  const drawn: { day: string; isFree: boolean; start: number }[] = [];
  for (let day = first, n = 0; n < count; day = addDays(day, 1)) {
    const isFree = !works(day);
    drawn.push({ day, isFree, start: instantIn(zone, day, 0) });
    if (!isFree) n += 1;
    if (drawn.length > 3 * count + 14) break;
  }
  const end = instantIn(zone, addDays(drawn.at(-1)?.day ?? first, 1), 0);
  const free = drawn.filter(({ isFree }) => isFree).length;
  const perHour = Math.max(1, (width - free * FREE_DAY - (drawn.length - free) * NIGHT) / ((drawn.length - free) * (toHour - fromHour)));
  const dayWidth = perHour * (toHour - fromHour) + NIGHT;
  let at = 0;
  const days = drawn.map(({ day, isFree }) => {
    const own = { day, isFree, x: at, width: isFree ? FREE_DAY : dayWidth };
    at += own.width;
    return own;
  });
  /** px within a day of work: half of the night before, the hours, half of the night behind */
  const inDay = (hour: number): number => {
    if (hour <= fromHour) return (hour / Math.max(1, fromHour)) * (NIGHT / 2);
    if (hour <= toHour) return NIGHT / 2 + (hour - fromHour) * perHour;
    return dayWidth - NIGHT / 2 + ((hour - toHour) / Math.max(1, 24 - toHour)) * (NIGHT / 2);
  };
  const hourAt = (x: number): number => Math.max(fromHour, Math.min(toHour, fromHour + (x - NIGHT / 2) / perHour));
  const indexOf = (ms: number): number => drawn.findLastIndex(({ start }) => start <= ms);
  const scale: PlanScale = {
    width: at,
    days,
    hours:
      perHour < HOUR_ROOM
        ? []
        : days
            .filter(({ isFree }) => !isFree)
            .flatMap(({ x }) =>
              Array.from({ length: toHour - fromHour + 1 }, (_, n) => ({ x: x + inDay(fromHour + n), hour: fromHour + n })),
            ),
    x: (ms) => {
      const index = indexOf(ms);
      const day = days[index];
      if (!day) return 0;
      if (ms >= end) return at;
      const hour = (ms - (drawn[index]?.start ?? 0)) / HOUR_MS;
      return day.x + (day.isFree ? (hour / 24) * FREE_DAY : inDay(hour));
    },
    ms: (x) => {
      const index = Math.max(0, days.findLastIndex((day) => day.x <= x)); // prettier-ignore
      const [day, own] = [days[index], drawn[index]];
      if (!day || !own) return end;
      const hour = day.isFree ? fromHour : hourAt(x - day.x);
      return Math.round((own.start + hour * HOUR_MS) / QUARTER_MS) * QUARTER_MS;
    },
  };
  return scale;
}
