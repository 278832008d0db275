/** Calendar arithmetic on plain days (`YYYY-MM-DD`), free of clock time and zone. */

const DAY_MS = 86_400_000;
/** days of a mean month */
export const DAYS_PER_MONTH = 30.44;

const toUtc = (day: string): number => Date.parse(`${day}T00:00:00Z`);
const fromUtc = (ms: number): string => new Date(ms).toISOString().slice(0, 10);

export function addDays(day: string, days: number): string {
  return fromUtc(toUtc(day) + Math.round(days) * DAY_MS);
}

/**
 * Adds calendar months; fractions become days of a mean month. The 31st falls back to the last day of a shorter month,
 * so that "six months after 31 August" is 28 February and not 3 March.
 */
export function addMonths(day: string, months: number): string {
  const whole = Math.trunc(months);
  const [year, month, dayOfMonth] = day.split('-').map(Number) as [number, number, number];
  const first = new Date(Date.UTC(year, month - 1 + whole, 1));
  const lastOfMonth = new Date(Date.UTC(first.getUTCFullYear(), first.getUTCMonth() + 1, 0)).getUTCDate();
  first.setUTCDate(Math.min(dayOfMonth, lastOfMonth));
  return addDays(fromUtc(first.getTime()), (months - whole) * DAYS_PER_MONTH);
}

/** Whole days from `from` to `to`; negative when `to` is earlier. */
export function daysBetween(from: string, to: string): number {
  return Math.round((toUtc(to) - toUtc(from)) / DAY_MS);
}

/** Formats by zone, made once: making one takes a hundred times as long as using it. */
function byZone(make: (zone: string) => Intl.DateTimeFormat): (zone: string) => Intl.DateTimeFormat {
  const made = new Map<string, Intl.DateTimeFormat>();
  return (zone) => {
    const format = made.get(zone) ?? make(zone);
    made.set(zone, format);
    return format;
  };
}

const dayFormat = byZone((timeZone) => new Intl.DateTimeFormat('en-CA', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' }));

/** The calendar day that an instant falls on in a time zone (IANA name). */
export const dayIn = (zone: string, instant: Date): string => dayFormat(zone).format(instant);

export function isTimeZone(zone: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}

const wallFormat = byZone(
  (timeZone) =>
    new Intl.DateTimeFormat('en-US', {
      timeZone,
      hourCycle: 'h23',
      year: 'numeric',
      month: 'numeric',
      day: 'numeric',
      hour: 'numeric',
      minute: 'numeric',
    }),
);

/** Minutes that a zone's clocks are ahead of UTC at an instant. */
function aheadMinutes(zone: string, ms: number): number {
  const parts = wallFormat(zone).formatToParts(new Date(ms));
  const part = (type: string): number => Number(parts.find((each) => each.type === type)?.value);
  const wall = Date.UTC(part('year'), part('month') - 1, part('day'), part('hour'), part('minute'));
  return Math.round((wall - Math.floor(ms / 60_000) * 60_000) / 60_000);
}

/** The instant at which a zone's clocks show a time of day. A time that the clocks skip in spring counts as the one after. */
export function instantIn(zone: string, day: string, minutesOfDay: number): number {
  const wall = toUtc(day) + minutesOfDay * 60_000;
  const guess = wall - aheadMinutes(zone, wall) * 60_000;
  return wall - aheadMinutes(zone, guess) * 60_000;
}

/** 1 Monday … 7 Sunday */
export const weekdayOf = (day: string): number => ((new Date(`${day}T00:00:00Z`).getUTCDay() + 6) % 7) + 1;
