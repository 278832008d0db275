import { instantIn } from '../../base/units/calendar.js';

/** How the days of a log are written. */
export type DayOrder = 'ymd' | 'dmy' | 'mdy';
export type TimeStyle =
  /** seconds or milliseconds since 1970 */
  | 'seconds'
  | 'milliseconds'
  /** days since 30 December 1899 on the machine's own clock, as spreadsheets write them */
  | 'serial'
  | DayOrder
  /** a time of day alone: the file does not say on which day it began */
  | 'clock';

const MONTHS: Readonly<Record<string, number>> = { jan: 1, feb: 2, mar: 3, mär: 3, mrz: 3, apr: 4, may: 5, mai: 5, jun: 6, jul: 7, aug: 8, sep: 9, oct: 10, okt: 10, nov: 11, dec: 12, dez: 12 }; // prettier-ignore
const [DAY_MS, HOUR_MS, MINUTE_MS] = [86_400_000, 3_600_000, 60_000];
const SERIAL_EPOCH = Date.UTC(1899, 11, 30);

/** Whole numbers of a text in their order, with what stands in it besides. Used over: a million lines ask for a million of them. */
class Scan {
  readonly numbers: number[] = [0, 0, 0, 0, 0, 0, 0, 0];
  readonly widths: number[] = [0, 0, 0, 0, 0, 0, 0, 0];
  /** what stood before each number */
  readonly before: string[] = ['', '', '', '', '', '', '', ''];
  count = 0;
  letters = '';
  /** min ahead of UTC where the text says so */
  zoneMinutes: number | null = null;

  of(text: string): boolean {
    this.count = 0;
    this.letters = '';
    this.zoneMinutes = null;
    let at = 0;
    while (at < text.length) {
      const code = text.charCodeAt(at);
      if (code >= 48 && code <= 57) {
        if (this.count === 8) return false;
        const from = at;
        let value = 0;
        for (let digit = code; digit >= 48 && digit <= 57; digit = text.charCodeAt(++at)) value = value * 10 + digit - 48;
        this.numbers[this.count] = value;
        this.widths[this.count] = at - from;
        this.before[this.count] = from > 0 ? (text[from - 1] as string) : '';
        this.count += 1;
        continue;
      }
      // a zone stands behind a time of day: Z, +01:00, -0530
      if (this.count >= 4 && (code === 90 || code === 43 || (code === 45 && text.indexOf(':') >= 0 && at > text.indexOf(':')))) {
        return this.zone(text.slice(at));
      }
      if (code > 64) this.letters += text[at] as string;
      at += 1;
    }
    return this.count > 0;
  }

  private zone(text: string): boolean {
    if (text === 'Z') {
      this.zoneMinutes = 0;
      return true;
    }
    const found = /^([+-])(\d{2}):?(\d{2})?$/.exec(text);
    if (!found) return false;
    this.zoneMinutes = (found[1] === '-' ? -1 : 1) * (Number(found[2]) * 60 + Number(found[3] ?? 0));
    return true;
  }
}

const scan = new Scan();

/** A day and a time of day on the machine's own clock, as ms of a day that has no zone; or an instant that the text itself gives. */
type Wall = { readonly wallMs: number } | { readonly atMs: number };

function timeOfDay(first: number): number | null {
  const { numbers, widths, before, count, letters } = scan;
  if (first >= count) return 0;
  let hour = numbers[first] as number;
  const minute = first + 1 < count ? (numbers[first + 1] as number) : 0;
  const second = first + 2 < count ? (numbers[first + 2] as number) : 0;
  const part = first + 3 < count && /[.,:]/.test(before[first + 3] as string) ? (numbers[first + 3] as number) / 10 ** (widths[first + 3] as number) : 0; // prettier-ignore
  const half = letters.slice(-2).toLowerCase();
  if (half === 'pm' && hour < 12) hour += 12;
  if (half === 'am' && hour === 12) hour = 0;
  if (hour > 23 || minute > 59 || second > 60) return null;
  return hour * HOUR_MS + minute * MINUTE_MS + (second + part) * 1000;
}

function wallOf(text: string, style: TimeStyle): Wall | null {
  if (style === 'seconds' || style === 'milliseconds' || style === 'serial') {
    const value = Number(text.replace(',', '.'));
    if (!Number.isFinite(value) || text.trim() === '') return null;
    if (style === 'serial') return { wallMs: Math.round(SERIAL_EPOCH + value * DAY_MS) };
    return { atMs: style === 'seconds' ? value * 1000 : value };
  }
  if (!scan.of(text)) return null;
  if (style === 'clock') {
    const ms = scan.count >= 2 ? timeOfDay(0) : null;
    return ms === null ? null : { wallMs: ms };
  }
  const dayMs = dayOf(style);
  const ms = dayMs === null ? null : timeOfDay(isMonthNamed() ? 2 : 3);
  if (dayMs === null || ms === null) return null;
  const wallMs = dayMs + ms;
  return scan.zoneMinutes === null ? { wallMs } : { atMs: wallMs - scan.zoneMinutes * MINUTE_MS };
}

const namedMonth = (): number | undefined => (scan.letters === '' ? undefined : MONTHS[scan.letters.slice(0, 3).toLowerCase()]);
const isMonthNamed = (): boolean => namedMonth() !== undefined;

/** The day of what was scanned, ms of its midnight; null for what is none, such as the 31st of a month that has none. */
function dayOf(style: DayOrder): number | null {
  const { numbers, count } = scan;
  const named = namedMonth();
  if (count < (named === undefined ? 3 : 2)) return null;
  const [a, b, c] = numbers as [number, number, number];
  const ofNumbers = { ymd: [a, b, c], dmy: [c, b, a], mdy: [c, a, b] } as const;
  const [year, month, day] = named === undefined ? ofNumbers[style] : a > 31 ? [a, named, b] : [b, named, a];
  const whole = year < 100 ? year + 2000 : year;
  if (whole < YEARS.first || whole > YEARS.last || month < 1 || month > 12) return null;
  const dayMs = Date.UTC(whole, month - 1, day);
  return new Date(dayMs).getUTCMonth() === month - 1 && day > 0 ? dayMs : null;
}

/** years that a log can be of */
const YEARS = { first: 1990, last: 2100 } as const;

/** share of the cells that a way of writing must read: a line may be broken */
const MOST = 0.8;

/** What cells of time look like: the style that reads them, and whether another would as well. */
export function styleOf(cells: readonly string[]): { style: TimeStyle; isUnsure: boolean } | null {
  const texts = cells.map((cell) => cell.trim()).filter((cell) => cell !== '');
  const most = (test: (text: string) => boolean): boolean => texts.filter(test).length >= MOST * texts.length;
  const isSure = (style: TimeStyle | null) => (style === null ? null : { style, isUnsure: false });
  if (texts.length === 0) return null;
  if (most((text) => /^\d+([.,]\d+)?$/.test(text))) return isSure(countOf(texts));
  const reads = (style: TimeStyle): boolean => most((text) => wallOf(text, style) !== null);
  if (most((text) => /^\d{1,2}:\d{2}(:\d{2}([.,]\d+)?)?( ?[ap]m)?$/i.test(text))) return isSure(reads('clock') ? 'clock' : null);
  if (most((text) => /^\d{4}\D/.test(text)) && reads('ymd')) return isSure('ymd');
  const fits = (['dmy', 'mdy'] as const).filter(reads);
  const isNamed = most((text) => /[a-zä]{3}/i.test(text.replace(/[ap]m/i, '')));
  if (fits.length < 2 || isNamed) return isSure(fits[0] ?? null);
  // a day written with points is written day first
  if (most((text) => /^\d{1,2}\.\d{1,2}\./.test(text))) return isSure('dmy');
  // lines follow one another: in the wrong order they would leap by months
  const [dmy, mdy] = fits.map((style) => spanOf(texts, style)) as [number, number];
  if (dmy === mdy) return { style: 'dmy', isUnsure: true };
  return { style: dmy < mdy ? 'dmy' : 'mdy', isUnsure: Math.max(dmy, mdy) < 3 * Math.min(dmy, mdy) };
}

/** What plain numbers count, by how large they are. */
function countOf(texts: readonly string[]): TimeStyle | null {
  const first = Number((texts.find((text) => /^\d/.test(text)) ?? '').replace(',', '.'));
  if (first > 1e11 && first < 1e13) return 'milliseconds';
  if (first > 6e8 && first < 1e10) return 'seconds';
  return first > 30_000 && first < 80_000 ? 'serial' : null;
}

/** From the first to the last time, ms, where a style reads them. */
function spanOf(texts: readonly string[], style: DayOrder): number {
  const walls = texts.flatMap((text) => {
    const wall = wallOf(text, style);
    return wall && 'wallMs' in wall ? [wall.wallMs] : [];
  });
  return Math.max(...walls) - Math.min(...walls);
}

/** letters of "18:04:10" */
const PLAIN_TIME = 8;

/** ms of a time of day written as 18:04:10 from a place to the end of a text; null where it is written otherwise. */
function plainTimeOfDay(text: string, from: number): number | null {
  if (text.length !== from + PLAIN_TIME || text.charCodeAt(from + 2) !== 58 || text.charCodeAt(from + 5) !== 58) return null;
  const hour = twoDigits(text, from);
  const minute = twoDigits(text, from + 3);
  const second = twoDigits(text, from + 6);
  // NaN is below nothing
  return hour < 24 && minute < 60 && second <= 60 ? hour * HOUR_MS + minute * MINUTE_MS + second * 1000 : null;
}

function twoDigits(text: string, at: number): number {
  const a = text.charCodeAt(at) - 48;
  const b = text.charCodeAt(at + 1) - 48;
  return a >= 0 && a <= 9 && b >= 0 && b <= 9 ? 10 * a + b : Number.NaN;
}

/** Steps that a clock may go back and still not have been set back for winter. */
const BACK_MS = 50 * MINUTE_MS;

/**
 * Instants of a log's lines, one after the other. A clock that a zone sets back in autumn shows an hour twice: what follows a line of
 * that hour and lies before it belongs to the second. A time of day that falls begins the next day.
 */
export class InstantReader {
  /** hours that a clock has shown twice so far */
  setBack = 0;
  private lastMs = -Infinity;
  private lastWallMs = -Infinity;
  private dayMs: number;
  private lastLength = -1;
  private lastDay = '';
  private lastDayMs = 0;
  /** what a zone's clocks are ahead, by the hour of the wall clock: the first and, where the hour comes twice, the second time */
  private readonly ahead = new Map<number, readonly [number, number]>();

  /** @param beginsOn day of the first line, where the lines give a time of day alone */
  constructor(
    private readonly style: TimeStyle,
    private readonly zone: string,
    beginsOn: string | null,
  ) {
    this.dayMs = beginsOn === null ? Number.NaN : Date.parse(`${beginsOn}T00:00:00Z`);
  }

  /** ms since 1970, or null for a line without a time. @param day of its own column, where there is one */
  read(text: string, day?: string): number | null {
    // most lines are of the day of the line above, written alike: only their time of day is read
    if (day === undefined && text.length === this.lastLength && text.startsWith(this.lastDay)) {
      const ofDayMs = plainTimeOfDay(text, this.lastDay.length);
      if (ofDayMs !== null) return this.instantOf(this.lastDayMs + ofDayMs);
    }
    const at = this.readWhole(text, day);
    if (day === undefined && at !== null) this.remember(text);
    return at;
  }

  /** What stands before a plain time of day at the end of a text is the day of the lines to come. */
  private remember(text: string): void {
    this.lastLength = -1;
    const from = text.length - PLAIN_TIME;
    if (from <= 0 || this.style === 'clock' || plainTimeOfDay(text, from) === null || !Number.isFinite(this.lastWallMs)) return;
    this.lastLength = text.length;
    this.lastDay = text.slice(0, from);
    this.lastDayMs = Math.floor(this.lastWallMs / DAY_MS) * DAY_MS;
  }

  private readWhole(text: string, day?: string): number | null {
    const wall = wallOf(day === undefined ? text : `${day} ${text}`, this.style);
    if (wall === null) return null;
    if ('atMs' in wall) {
      this.lastWallMs = Number.NaN;
      return wall.atMs;
    }
    const at = this.instantOf(this.style === 'clock' ? this.onItsDay(wall.wallMs) : wall.wallMs);
    return Number.isFinite(at) ? at : null;
  }

  private onItsDay(ofDayMs: number): number {
    const wallMs = this.dayMs + ofDayMs;
    if (wallMs < this.lastWallMs - DAY_MS / 2) this.dayMs += DAY_MS;
    return this.dayMs + ofDayMs;
  }

  private instantOf(wallMs: number): number {
    const [first, second] = this.aheadAt(wallMs);
    let at = wallMs - first;
    if (first !== second) {
      // the hour that comes twice
      if (at < this.lastMs && this.lastMs - at < HOUR_MS + BACK_MS) {
        if (this.lastWallMs > wallMs) this.setBack += 1;
        at = wallMs - second;
      }
    }
    this.lastMs = at;
    this.lastWallMs = wallMs;
    return at;
  }

  private aheadAt(wallMs: number): readonly [number, number] {
    const hour = Math.floor(wallMs / HOUR_MS);
    const known = this.ahead.get(hour);
    if (known) return known;
    const day = new Date(hour * HOUR_MS).toISOString().slice(0, 10);
    const minutes = (hour * HOUR_MS - Date.parse(`${day}T00:00:00Z`)) / MINUTE_MS;
    // what the zone makes of the hours around tells whether this one comes twice
    const aheadOf = (atMinutes: number): number => Date.parse(`${day}T00:00:00Z`) + atMinutes * MINUTE_MS - instantIn(this.zone, day, atMinutes); // prettier-ignore
    const [before, after] = [aheadOf(minutes - 180), aheadOf(minutes + 180)];
    const own = aheadOf(minutes);
    const isTwice = after < before && this.comesTwice(hour * HOUR_MS, before, after);
    const found: readonly [number, number] = isTwice ? [before, after] : [own, own];
    this.ahead.set(hour, found);
    return found;
  }

  /** Both readings of the hour are real: each instant shows this wall clock. */
  private comesTwice(wallMs: number, before: number, after: number): boolean {
    const shows = (atMs: number): boolean => {
      const iso = new Date(wallMs).toISOString().slice(0, 10);
      const shown = new Intl.DateTimeFormat('en-US', { timeZone: this.zone, hourCycle: 'h23', hour: 'numeric' }).format(new Date(atMs));
      return Number(shown) === Math.round((wallMs - Date.parse(`${iso}T00:00:00Z`)) / HOUR_MS) % 24;
    };
    return shows(wallMs - before) && shows(wallMs - after);
  }
}
