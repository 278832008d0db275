/** Calendar arithmetic on plain days (`YYYY-MM-DD`), free of clock time and zone. */

/** days of a mean month */
export const DAYS_PER_MONTH = 30.44;

const two = (n: number): string => (n < 10 ? `0${n}` : String(n));
const dayText = (year: number, month: number, day: number): string => `${String(year).padStart(4, '0')}-${two(month)}-${two(day)}`;

/**
 * Days from 1970-01-01 to a day of the Gregorian calendar, by whole numbers alone: ten thousand machines have a million
 * dates, and a `Date` for each takes longer than all that is reckoned with them. Years begin in March, so that the leap day
 * is the last of its year (Fliegel and Van Flandern, Communications of the ACM 11, 1968).
 */
function daysOf(year: number, month: number, day: number): number {
  const shifted = month <= 2 ? year - 1 : year;
  const era = Math.floor(shifted / 400);
  const ofEra = shifted - era * 400;
  const ofYear = Math.floor((153 * (month + (month > 2 ? -3 : 9)) + 2) / 5) + day - 1;
  return era * 146_097 + ofEra * 365 + Math.floor(ofEra / 4) - Math.floor(ofEra / 100) + ofYear - 719_468;
}

/** `YYYY-MM-DD` as days since 1970-01-01; NaN for anything else. */
function toDays(day: string): number {
  if (day.length !== 10 || day[4] !== '-' || day[7] !== '-') return Number.NaN;
  return daysOf(Number(day.slice(0, 4)), Number(day.slice(5, 7)), Number(day.slice(8)));
}

/** @throws RangeError for what is no day */
function fromDays(days: number): string {
  if (!Number.isFinite(days)) throw new RangeError('not a calendar day');
  const shifted = days + 719_468;
  const era = Math.floor(shifted / 146_097);
  const ofEra = shifted - era * 146_097;
  const yearOfEra = Math.floor((ofEra - Math.floor(ofEra / 1460) + Math.floor(ofEra / 36_524) - Math.floor(ofEra / 146_096)) / 365);
  const ofYear = ofEra - (365 * yearOfEra + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100));
  const fromMarch = Math.floor((5 * ofYear + 2) / 153);
  const month = fromMarch < 10 ? fromMarch + 3 : fromMarch - 9;
  return dayText(yearOfEra + era * 400 + (month <= 2 ? 1 : 0), month, ofYear - Math.floor((153 * fromMarch + 2) / 5) + 1);
}

export function addDays(day: string, days: number): string {
  return fromDays(toDays(day) + Math.round(days));
}

/**
 * Adds calendar months; fractions become days of a mean month. The 31st falls back to the last day of a shorter month,
 * so that "six months after 31 August" is 28 February and not 3 March.
 */
export function addMonths(day: string, months: number): string {
  const whole = Math.trunc(months);
  const from = Number(day.slice(0, 4)) * 12 + Number(day.slice(5, 7)) - 1 + whole;
  const [year, month] = [Math.floor(from / 12), (from % 12) + 1];
  const lastOfMonth = daysOf(month === 12 ? year + 1 : year, month === 12 ? 1 : month + 1, 1) - daysOf(year, month, 1);
  const first = daysOf(year, month, Math.min(Number(day.slice(8, 10)), lastOfMonth));
  return fromDays(first + Math.round((months - whole) * DAYS_PER_MONTH));
}

/** Whole days from `from` to `to`; negative when `to` is earlier. */
export function daysBetween(from: string, to: string): number {
  return toDays(to) - toDays(from);
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
  const wall = toDays(day) * 86_400_000 + minutesOfDay * 60_000;
  const guess = wall - aheadMinutes(zone, wall) * 60_000;
  return wall - aheadMinutes(zone, guess) * 60_000;
}

/** 1 Monday … 7 Sunday */
export const weekdayOf = (day: string): number => ((new Date(`${day}T00:00:00Z`).getUTCDay() + 6) % 7) + 1;
