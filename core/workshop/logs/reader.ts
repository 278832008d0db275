import { dayIn } from '../../base/units/calendar.js';
import type { LoadReading } from '../../physics/diagnosis/loadReading.js';
import { headingsOf, indexOfColumn, inOwnUnit, isOwnUnit, type LogColumn, type LogColumns, type LogUnit } from './columns.js';
import { MOST_DAYS, OFF_AFTER_MINUTES, SANE, TOLD_LINES } from './defaults.js';
import { InstantReader } from './instants.js';
import { isHeadingAgain, type LogLayout } from './layout.js';
import { numberIn } from './numbers.js';
import { SteadyFinder, type LogMinute, type SteadyWindow, type Throttled } from './steady.js';

/** A day on which a machine was loaded long enough for its end to be read. */
export interface DayReading {
  readonly on: string;
  /** end of the stretch, ISO 8601 */
  readonly at: string;
  readonly reading: LoadReading;
}

/** What a log comes to: taken and left out. */
export interface LogReport {
  /** lines of data that were looked at */
  readonly lines: number;
  readonly fromMs: number;
  readonly toMs: number;
  /** h between lines that follow one another while the machine ran */
  readonly hours: number;
  /** time-weighted mean over those hours, °C; null where no line states a temperature */
  readonly meanCoolantC: number | null;
  /** count of the machine's own hour meter at the end, where the log has one */
  readonly meterHours: number | null;
  readonly days: readonly DayReading[];
  /** days with lines, whether they could be read or not */
  readonly daysLogged: number;
  readonly left: {
    /** lines whose time cannot be read, and the first of them counted from 1 */
    readonly unreadable: number;
    readonly firstUnreadable: readonly number[];
    /** lines at or before the time of a line above them */
    readonly repeated: number;
    /** figures that no sensor can mean */
    readonly insane: number;
  };
  /** times that the machine was off for longer than `OFF_AFTER_MINUTES`, and the longest of them, min */
  readonly off: { readonly times: number; readonly longestMinutes: number };
  /** times that the logger began anew */
  readonly restarts: number;
  /** hours that a clock set back for winter has shown twice */
  readonly setBack: number;
  /** days on which a part held its temperature by giving power away; the worst of each day */
  readonly throttled: readonly {
    readonly on: string;
    readonly part: string;
    readonly atC: number;
    readonly fromW: number;
    readonly toW: number;
  }[];
  /** why no line could become a reading; null: that was no question */
  readonly noReadings: 'no-power' | 'no-room' | 'no-load' | null;
  /** 1/min that were taken for full speed */
  readonly fullPumpRpm: number | null;
  readonly fullFanRpm: number | null;
}

const [MINUTE_MS, HOUR_MS, DAY_MS] = [60_000, 3_600_000, 86_400_000];
const OFF_MS = OFF_AFTER_MINUTES * MINUTE_MS;
type Range = { readonly least: number; readonly most: number };
/** the channels behind the parts, in their order */
const OTHERS = { coolant: 0, room: 1, flow: 2, pump: 3, fan: 4, hours: 5 } as const;

/** A column as it is read: in what unit, within which bounds. */
interface Channel {
  readonly column: LogColumn | null | undefined;
  readonly range: Range;
}

/**
 * The means of a minute that runs, column beside column: a million lines ask for each of their figures, so they lie in flat lists and not
 * in objects.
 */
class RunningMeans {
  private readonly at: Int32Array;
  private readonly units: readonly (LogUnit | null)[];
  private readonly sums: Float64Array;
  private readonly counts: Int32Array;
  private readonly least: Float64Array;
  private readonly most: Float64Array;
  /** figures that no sensor can mean */
  insane = 0;

  constructor(private readonly channels: readonly Channel[]) {
    this.at = new Int32Array(channels.length).fill(-1);
    this.sums = new Float64Array(channels.length);
    this.counts = new Int32Array(channels.length);
    this.least = Float64Array.from(channels, ({ range }) => range.least);
    this.most = Float64Array.from(channels, ({ range }) => range.most);
    this.units = channels.map(({ column }) => (column && !isOwnUnit(column.unit) ? column.unit : null));
  }

  /** Columns may move where a program is started anew. */
  find(headings: ReturnType<typeof headingsOf>): void {
    this.channels.forEach(({ column }, index) => {
      this.at[index] = indexOfColumn(headings, column);
    });
  }

  has(index: number): boolean {
    return (this.at[index] ?? -1) >= 0;
  }

  /** @returns what was read of the column that somebody follows line by line; NaN where nothing was */
  take(row: readonly string[], decimalComma: boolean, followed: number): number {
    const { at, sums, counts, units, least, most } = this;
    let found = Number.NaN;
    for (let index = 0; index < at.length; index += 1) {
      const place = at[index] as number;
      const text = place < 0 ? undefined : row[place];
      if (text === undefined || text === '') continue;
      const own = numberIn(text, decimalComma);
      const unit = units[index] as LogUnit | null;
      const value = unit === null ? own : inOwnUnit(own, unit);
      if (value >= (least[index] as number) && value <= (most[index] as number)) {
        sums[index] = (sums[index] as number) + value;
        counts[index] = (counts[index] as number) + 1;
        if (index === followed) found = value;
      } else if (!Number.isNaN(value)) this.insane += 1;
    }
    return found;
  }

  mean(index: number): number {
    const count = this.counts[index] as number;
    return count === 0 ? Number.NaN : (this.sums[index] as number) / count;
  }

  clear(): void {
    this.sums.fill(0);
    this.counts.fill(0);
  }
}

/**
 * Reads a log line by line and keeps a minute of it, so that years of lines pass through: hours that the machine ran, its mean coolant
 * temperature (trapezoid by trapezoid), and for each day the end of its heaviest steady load as a reading.
 */
export class LogReader {
  private readonly instants: InstantReader;
  private time = -1;
  private date = -1;
  private readonly means: RunningMeans;
  /** where the channels begin behind the temperatures and the powers of the parts */
  private readonly others: number;
  private readonly steady: SteadyFinder;

  private lines = 0;
  private row = 0;
  private unreadable = 0;
  private readonly firstUnreadable: number[] = [];
  private repeated = 0;
  private restarts = 0;
  private offTimes = 0;
  private longestOffMs = 0;
  private fromMs = Number.NaN;
  private lastMs = -Infinity;
  private lastCoolantC = Number.NaN;
  private runMs = 0;
  private warmMs = 0;
  private warmth = 0;
  private meterHours = Number.NaN;
  private minute = -1;
  private dayEndsMs = -Infinity;
  private day = '';
  private daysLogged = 0;
  private readonly best = new Map<string, SteadyWindow>();
  private readonly held = new Map<string, Throttled>();
  private mostPump = 0;
  private mostFan = 0;

  /**
   * @param zone of the clock that wrote the log, where its times name none
   * @param beginsOn its first day, where its lines tell a time of day alone
   */
  constructor(
    private readonly layout: LogLayout,
    private readonly columns: LogColumns,
    private readonly zone: string,
    beginsOn: string | null = null,
  ) {
    this.instants = new InstantReader(layout.style, zone, beginsOn);
    const { channels, parts } = columns;
    const speed = (column: LogColumn | undefined): Channel => ({
      column,
      range: column?.unit === 'percent' ? { least: 0, most: 1 } : SANE.rpm,
    });
    this.others = 2 * parts.length;
    this.means = new RunningMeans([
      ...parts.map(({ temperature }) => ({ column: temperature, range: SANE.partC })),
      ...parts.map(({ power }) => ({ column: power, range: SANE.powerW })),
      { column: channels.coolant, range: SANE.coolantC },
      { column: channels.room, range: SANE.roomC },
      { column: channels.flow, range: SANE.flowLph },
      speed(channels.pump),
      speed(channels.fan),
      { column: channels.hours, range: { least: 0, most: 1e6 } },
    ]);
    this.steady = new SteadyFinder(
      (window) => this.keep(window),
      (throttled) => this.keepThrottled(throttled),
    );
    this.find(layout.headings);
  }

  private find(cells: readonly string[]): void {
    const headings = headingsOf(cells);
    this.time = indexOfColumn(headings, this.columns.time);
    this.date = indexOfColumn(headings, this.columns.date);
    this.means.find(headings);
  }

  /** The next row of the file, the heading and what stands above it included. */
  take(row: readonly string[]): void {
    this.row += 1;
    if (this.row <= this.layout.firstRow) return;
    const text = row[this.time];
    const atMs = text === undefined ? null : this.instants.read(text, this.date < 0 ? undefined : row[this.date]);
    if (atMs === null) {
      this.noTime(row);
      return;
    }
    this.lines += 1;
    if (atMs <= this.lastMs) {
      this.repeated += 1;
      return;
    }
    if (Number.isNaN(this.fromMs)) this.fromMs = atMs;
    this.follow(atMs, row);
    this.lastMs = atMs;
  }

  private noTime(row: readonly string[]): void {
    if (isHeadingAgain(this.layout, row)) {
      this.restarts += 1;
      // without the row of units that is joined to the first
      if (row.every((cell, index) => (this.layout.headings[index] ?? '') === cell.trim())) this.find(row);
      return;
    }
    if (row.every((cell) => cell.trim() === '')) return;
    this.unreadable += 1;
    if (this.firstUnreadable.length < TOLD_LINES) this.firstUnreadable.push(this.row);
  }

  private follow(atMs: number, row: readonly string[]): void {
    const { decimalComma } = this.layout;
    const gapMs = atMs - this.lastMs;
    const minute = Math.floor(atMs / MINUTE_MS);
    if (minute !== this.minute) this.closeMinute();
    if (gapMs > OFF_MS && Number.isFinite(gapMs)) {
      this.offTimes += 1;
      this.longestOffMs = Math.max(this.longestOffMs, gapMs);
      this.steady.gap();
    }
    this.minute = minute;
    if (atMs >= this.dayEndsMs) this.beginDay(atMs);
    const coolantC = this.means.take(row, decimalComma, this.others + OTHERS.coolant);
    if (gapMs <= OFF_MS) {
      this.runMs += gapMs;
      if (Number.isFinite(coolantC) && Number.isFinite(this.lastCoolantC)) {
        this.warmMs += gapMs;
        this.warmth += (gapMs * (coolantC + this.lastCoolantC)) / 2;
      }
    }
    this.lastCoolantC = coolantC;
  }

  private closeMinute(): void {
    if (this.minute < 0) return;
    const { means, others } = this;
    const parts = others / 2;
    const meter = means.mean(others + OTHERS.hours);
    if (Number.isFinite(meter)) this.meterHours = meter;
    const minute: LogMinute = {
      minute: this.minute,
      partsC: Array.from({ length: parts }, (_, part) => means.mean(part)),
      powersW: Array.from({ length: parts }, (_, part) => means.mean(parts + part)),
      coolantC: means.mean(others + OTHERS.coolant),
      roomC: means.mean(others + OTHERS.room),
      flowLph: means.mean(others + OTHERS.flow),
      pump: means.mean(others + OTHERS.pump),
      fan: means.mean(others + OTHERS.fan),
    };
    means.clear();
    if (minute.pump > this.mostPump) this.mostPump = minute.pump;
    if (minute.fan > this.mostFan) this.mostFan = minute.fan;
    this.steady.take(minute);
  }

  private beginDay(atMs: number): void {
    // a load that runs over midnight is read on both its days
    this.steady.cut();
    this.day = dayIn(this.zone, new Date(atMs));
    this.daysLogged += 1;
    // the next day begins within this many hours; zones whose days have 23 or 25 of them are found by asking
    let ends = atMs + HOUR_MS - (atMs % HOUR_MS);
    while (ends < atMs + DAY_MS + 2 * HOUR_MS && dayIn(this.zone, new Date(ends)) === this.day) ends += HOUR_MS / 2;
    this.dayEndsMs = ends;
  }

  private dayOf = (minute: number): string => dayIn(this.zone, new Date(minute * MINUTE_MS));

  private keep(window: SteadyWindow): void {
    const on = this.dayOf(window.minute);
    const known = this.best.get(on);
    const watts = (of: SteadyWindow): number => of.powersW.reduce((sum, each) => (Number.isFinite(each) ? sum + each : sum), 0);
    // the heaviest load of a day tells most; of equal ones, the longer
    const isBetter =
      !known || watts(window) > 1.05 * watts(known) || (watts(window) > 0.95 * watts(known) && window.minutes > known.minutes);
    if (isBetter && (known || this.best.size < MOST_DAYS)) this.best.set(on, window);
  }

  private keepThrottled(throttled: Throttled): void {
    const key = `${this.dayOf(throttled.minute)} ${throttled.part}`;
    const known = this.held.get(key);
    if (!known || known.toW / known.fromW > throttled.toW / throttled.fromW) this.held.set(key, throttled);
  }

  /** @returns null for fewer than two lines with a time */
  end(): LogReport | null {
    this.closeMinute();
    this.steady.gap();
    if (this.lines - this.repeated < 2) return null;
    const isCounted = ({ unit }: LogColumn): boolean => unit === 'rpm';
    const { pump, fan } = this.columns.channels;
    const fullOf = (column: LogColumn | undefined, known: number | null, most: number): number | null =>
      column && isCounted(column) ? (known ?? (most > 0 ? most : null)) : null;
    const fullPumpRpm = fullOf(pump, this.columns.fullPumpRpm, this.mostPump);
    const fullFanRpm = fullOf(fan, this.columns.fullFanRpm, this.mostFan);
    const days = [...this.best]
      .sort(([a], [b]) => a.localeCompare(b))
      .flatMap(([on, window]): DayReading[] => {
        const reading = this.asReading(window, fullPumpRpm, fullFanRpm);
        return reading ? [{ on, at: new Date(window.minute * MINUTE_MS).toISOString(), reading }] : [];
      });
    return {
      lines: this.lines,
      fromMs: this.fromMs,
      toMs: this.lastMs,
      hours: this.runMs / HOUR_MS,
      meanCoolantC: this.warmMs > 0 ? this.warmth / this.warmMs : null,
      meterHours: Number.isFinite(this.meterHours) ? this.meterHours : null,
      days,
      daysLogged: this.daysLogged,
      left: { unreadable: this.unreadable, firstUnreadable: this.firstUnreadable, repeated: this.repeated, insane: this.means.insane },
      off: { times: this.offTimes, longestMinutes: Math.round(this.longestOffMs / MINUTE_MS) },
      restarts: this.restarts,
      setBack: this.instants.setBack,
      throttled: [...this.held].map(([key, { part, atC, fromW, toW }]) => ({
        on: key.slice(0, 10),
        part: this.columns.parts[part]?.part ?? '',
        atC,
        fromW,
        toW,
      })),
      noReadings: days.length > 0 ? null : this.whyNone(),
      fullPumpRpm,
      fullFanRpm,
    };
  }

  private whyNone(): LogReport['noReadings'] {
    const parts = this.others / 2;
    const isWhole = (part: number): boolean => this.means.has(part) && this.means.has(parts + part);
    if (!this.columns.parts.some((_, part) => isWhole(part))) return 'no-power';
    return !this.means.has(this.others + OTHERS.room) && this.columns.roomC === null ? 'no-room' : 'no-load';
  }

  private asReading(window: SteadyWindow, fullPump: number | null, fullFan: number | null): LoadReading | null {
    const roomC = Number.isFinite(window.roomC) ? window.roomC : this.columns.roomC;
    if (roomC === null) return null;
    const measured = this.columns.parts.map(({ part }, index) => ({ part, c: window.partsC[index] as number, watts: window.powersW[index] as number })); // prettier-ignore
    const known = measured.filter(({ c, watts }) => Number.isFinite(c) && watts > 0);
    if (known.length === 0) return null;
    const share = (value: number, full: number | null): number | undefined =>
      Number.isFinite(value) ? Math.min(1, full === null ? value : value / full) : undefined;
    const [pumpSpeed, fanSpeed] = [share(window.pump, fullPump), share(window.fan, fullFan)];
    return {
      roomC,
      powersW: Object.fromEntries(measured.filter(({ watts }) => watts > 0).map(({ part, watts }) => [part, watts])),
      partsC: Object.fromEntries(known.map(({ part, c }) => [part, c])),
      ...(Number.isFinite(window.coolantC) ? { coolantC: window.coolantC } : {}),
      ...(Number.isFinite(window.flowLph) ? { flowLph: window.flowLph } : {}),
      ...(pumpSpeed === undefined ? {} : { pumpSpeed }),
      ...(fanSpeed === undefined ? {} : { fanSpeed }),
      minutes: window.minutes,
    };
  }
}
