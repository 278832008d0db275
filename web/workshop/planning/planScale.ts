import { addDays, instantIn } from '@core/base/units/calendar.js';

/** The board's time: days side by side, the workshop's clock, nights narrower than days. */
export interface PlanScale {
  readonly days: readonly { readonly day: string; readonly x: number; readonly width: number }[];
  readonly width: number;
  x(ms: number): number;
  /** the instant under a point, on a quarter of an hour */
  ms(x: number): number;
}

/** hours of a day that are drawn at full width; what lies around them is squeezed */
const DAY_FROM = 7;
const DAY_TO = 20;
/** how much narrower an hour of the night is */
const NIGHT_SHARE = 0.2;
const QUARTER_MS = 900_000;
const HOURS = DAY_TO - DAY_FROM + (24 - DAY_TO + DAY_FROM) * NIGHT_SHARE;

export function planScale(zone: string, first: string, count: number, width: number): PlanScale {
  const dayWidth = width / count;
  const perHour = dayWidth / HOURS;
  const starts = Array.from({ length: count + 1 }, (_, n) => instantIn(zone, addDays(first, n), 0));
  const inDay = (hours: number): number => {
    if (hours <= DAY_FROM) return hours * NIGHT_SHARE * perHour;
    const morning = DAY_FROM * NIGHT_SHARE * perHour;
    if (hours <= DAY_TO) return morning + (hours - DAY_FROM) * perHour;
    return morning + (DAY_TO - DAY_FROM) * perHour + (hours - DAY_TO) * NIGHT_SHARE * perHour;
  };
  const hoursAt = (x: number): number => {
    const morning = DAY_FROM * NIGHT_SHARE * perHour;
    const evening = morning + (DAY_TO - DAY_FROM) * perHour;
    if (x <= morning) return x / (NIGHT_SHARE * perHour);
    return x <= evening ? DAY_FROM + (x - morning) / perHour : DAY_TO + (x - evening) / (NIGHT_SHARE * perHour);
  };
  return {
    width,
    days: Array.from({ length: count }, (_, n) => ({ day: addDays(first, n), x: n * dayWidth, width: dayWidth })),
    x: (ms) => {
      const day = starts.findLastIndex((start) => start <= ms);
      if (day < 0) return 0;
      if (day >= count) return width;
      return day * dayWidth + inDay((ms - (starts[day] as number)) / 3_600_000);
    },
    ms: (x) => {
      const day = Math.max(0, Math.min(count - 1, Math.floor(x / dayWidth)));
      const ms = (starts[day] as number) + hoursAt(Math.max(0, x - day * dayWidth)) * 3_600_000;
      return Math.round(ms / QUARTER_MS) * QUARTER_MS;
    },
  };
}
