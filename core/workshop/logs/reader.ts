import { dayIn } from '../../base/units/calendar.js';
import type { LoadReading } from '../../physics/diagnosis/loadReading.js';
import { headingsOf, indexOfColumn, inOwnUnit, type LogColumn, type LogColumns } from './columns.js';
import { MOST_DAYS, OFF_AFTER_MINUTES, SANE, TOLD_LINES } from './defaults.js';
import { InstantReader } from './instants.js';
import { isHeadingAgain, type LogLayout } from './layout.js';
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

/** A column as it is read: where, in what unit, within which bounds; its mean over the minute that runs. */
class Channel {
  index = -1;
  private sum = 0;
  private count = 0;

  constructor(
    private readonly column: LogColumn | null | undefined,
    private readonly range: Range,
    private readonly onInsane: () => void,
  ) {}

  /** Columns may move where a program is started anew. */
  find(headings: ReturnType<typeof headingsOf>): void {
    this.index = indexOfColumn(headings, this.column);
  }

  take(row: readonly string[], decimalComma: boolean): number {
    if (this.index < 0) return Number.NaN;
    const text = row[this.index];
    if (text === undefined || text === '') return Number.NaN;
    const own = Number(decimalComma ? text.replace(',', '.') : text);
    if (!Number.isFinite(own)) return Number.NaN;
    const value = inOwnUnit(own, (this.column as LogColumn).unit);
    if (value < this.range.least || value > this.range.most) {
      this.onInsane();
      return Number.NaN;
    }
    this.sum += value;
    this.count += 1;
    return value;
  }

  mean(): number {
    const mean = this.count === 0 ? Number.NaN : this.sum / this.count;
    this.sum = 0;
    this.count = 0;
    return mean;
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
  private readonly partsC: Channel[];
  private readonly powersW: Channel[];
  private readonly coolant: Channel;
  private readonly room: Channel;
  private readonly flow: Channel;
  private readonly pump: Channel;
  private readonly fan: Channel;
  private readonly meter: Channel;
  private readonly all: Channel[];
  private readonly steady: SteadyFinder;

  private lines = 0;
  private row = 0;
  private unreadable = 0;
  private readonly firstUnreadable: number[] = [];
  private repeated = 0;
  private insane = 0;
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
    const onInsane = (): void => {
      this.insane += 1;
    };
    const channel = (column: LogColumn | null | undefined, range: Range): Channel => new Channel(column, range, onInsane);
    const speed = (column: LogColumn | null | undefined): Channel => channel(column, column?.unit === 'percent' ? { least: 0, most: 1 } : SANE.rpm); // prettier-ignore
    const { channels, parts } = columns;
    this.partsC = parts.map(({ temperature }) => channel(temperature, SANE.partC));
    this.powersW = parts.map(({ power }) => channel(power, SANE.powerW));
    this.coolant = channel(channels.coolant, SANE.coolantC);
    this.room = channel(channels.room, SANE.roomC);
    this.flow = channel(channels.flow, SANE.flowLph);
    this.pump = speed(channels.pump);
    this.fan = speed(channels.fan);
    this.meter = channel(channels.hours, { least: 0, most: 1e6 });
    this.all = [...this.partsC, ...this.powersW, this.coolant, this.room, this.flow, this.pump, this.fan, this.meter];
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
    for (const channel of this.all) channel.find(headings);
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
    for (const channel of this.partsC) channel.take(row, decimalComma);
    for (const channel of this.powersW) channel.take(row, decimalComma);
    this.room.take(row, decimalComma);
    this.flow.take(row, decimalComma);
    this.pump.take(row, decimalComma);
    this.fan.take(row, decimalComma);
    const meter = this.meter.take(row, decimalComma);
    if (Number.isFinite(meter)) this.meterHours = meter;
    const coolantC = this.coolant.take(row, decimalComma);
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
    const minute: LogMinute = {
      minute: this.minute,
      partsC: this.partsC.map((channel) => channel.mean()),
      powersW: this.powersW.map((channel) => channel.mean()),
      coolantC: this.coolant.mean(),
      roomC: this.room.mean(),
      flowLph: this.flow.mean(),
      pump: this.pump.mean(),
      fan: this.fan.mean(),
    };
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
      left: { unreadable: this.unreadable, firstUnreadable: this.firstUnreadable, repeated: this.repeated, insane: this.insane },
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
    if (!this.powersW.some(({ index }, part) => index >= 0 && (this.partsC[part]?.index ?? -1) >= 0)) return 'no-power';
    return this.room.index < 0 && this.columns.roomC === null ? 'no-room' : 'no-load';
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
