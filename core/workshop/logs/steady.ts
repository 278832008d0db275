import { STEADY, THROTTLE } from './defaults.js';

/** Means of one minute of a log, in its own units; NaN where nothing was measured. */
export interface LogMinute {
  /** minutes since 1970 */
  readonly minute: number;
  readonly partsC: readonly number[];
  readonly powersW: readonly number[];
  readonly coolantC: number;
  readonly roomC: number;
  readonly flowLph: number;
  /** 1/min or a share of full speed, whichever the log counts */
  readonly pump: number;
  readonly fan: number;
}

/** The end of a stretch under one load, warm enough to stand for its steady state. */
export interface SteadyWindow extends LogMinute {
  /** min under that load before its end */
  readonly minutes: number;
}

/** A part that held its temperature while its power fell. */
export interface Throttled {
  readonly minute: number;
  /** index of the part */
  readonly part: number;
  readonly atC: number;
  readonly fromW: number;
  readonly toW: number;
}

const sumOf = (values: readonly number[]): number => values.reduce((sum, each) => (Number.isFinite(each) ? sum + each : sum), 0);
/** of what was measured; NaN where nothing was */
function meanOf(values: readonly number[]): number {
  let [sum, count] = [0, 0];
  for (const value of values)
    if (Number.isFinite(value)) {
      sum += value;
      count += 1;
    }
  return count === 0 ? Number.NaN : sum / count;
}

const meanBy = (minutes: readonly LogMinute[], of: (minute: LogMinute) => number): number => meanOf(minutes.map(of));

/** Minutes that belong together: one mean for each figure. */
function meanMinute(minutes: readonly LogMinute[]): LogMinute {
  const last = minutes.at(-1) as LogMinute;
  return {
    minute: last.minute,
    partsC: last.partsC.map((_, index) => meanBy(minutes, ({ partsC }) => partsC[index] as number)),
    powersW: last.powersW.map((_, index) => meanBy(minutes, ({ powersW }) => powersW[index] as number)),
    coolantC: meanBy(minutes, ({ coolantC }) => coolantC),
    roomC: meanBy(minutes, ({ roomC }) => roomC),
    flowLph: meanBy(minutes, ({ flowLph }) => flowLph),
    pump: meanBy(minutes, ({ pump }) => pump),
    fan: meanBy(minutes, ({ fan }) => fan),
  };
}

/**
 * Looks for stretches under one load while minutes go by, and keeps no more of them than it looks at: a log of years passes through.
 * A stretch ends where its power, its pump or its fans move; its reading is the mean of its last minutes, once neither coolant nor parts
 * move against the room any more.
 */
export class SteadyFinder {
  private stretch: LogMinute[] = [];
  private began = 0;
  private strays: LogMinute[] = [];
  private found: SteadyWindow | null = null;
  private readonly recent: LogMinute[] = [];
  /** mean of the stretch so far, kept up as it grows */
  private power = 0;
  private length = 0;

  constructor(
    private readonly onWindow: (window: SteadyWindow) => void,
    private readonly onThrottled: (throttled: Throttled) => void,
  ) {}

  take(minute: LogMinute): void {
    this.watchThrottling(minute);
    if (this.length > 0 && !this.belongs(minute)) {
      this.strays.push(minute);
      if (this.strays.length <= STEADY.strayMinutes) return;
      const [first, ...rest] = this.strays;
      this.end();
      this.begin(first as LogMinute);
      for (const stray of rest) this.take(stray);
      return;
    }
    this.strays = [];
    if (this.length === 0) this.begin(minute);
    else this.grow(minute);
  }

  /** The machine went off, or the log ends. */
  end(): void {
    this.lookBack();
    if (this.found) this.onWindow(this.found);
    this.found = null;
    this.stretch = [];
    this.strays = [];
    this.length = 0;
  }

  /** What a stretch shows so far, without ending it: a load that runs over midnight counts on each of its days. */
  cut(): void {
    this.lookBack();
    if (this.found) this.onWindow(this.found);
    this.found = null;
  }

  /** Nothing that went before is near enough to be compared: the watch for throttling begins anew. */
  gap(): void {
    this.end();
    this.recent.length = 0;
  }

  private begin(minute: LogMinute): void {
    this.stretch = [minute];
    this.began = minute.minute;
    this.power = sumOf(minute.powersW);
    this.length = 1;
  }

  private belongs(minute: LogMinute): boolean {
    const watts = sumOf(minute.powersW);
    if (Math.abs(watts - this.power) > Math.max(STEADY.powerW, STEADY.powerShare * this.power)) return false;
    const before = this.stretch.at(-1) as LogMinute;
    const moved = (a: number, b: number): boolean => Number.isFinite(a) && Number.isFinite(b) && Math.abs(a - b) > STEADY.speedShare * Math.max(a, b); // prettier-ignore
    return !moved(before.pump, minute.pump) && !moved(before.fan, minute.fan);
  }

  private grow(minute: LogMinute): void {
    this.stretch.push(minute);
    // the ends are looked at, not the whole
    if (this.stretch.length > STEADY.windowMinutes) this.stretch.shift();
    this.length += 1;
    this.power += (sumOf(minute.powersW) - this.power) / this.length;
    const minutes = minute.minute - this.began;
    if (minutes < STEADY.leadMinutes || this.power < STEADY.leastLoadW || this.stretch.length < STEADY.windowMinutes) return;
    // what is looked at overlaps: not every minute says something new
    if (this.length % STEADY.lookMinutes === 0) this.look(minutes);
  }

  private look(minutes: number): void {
    if (this.isSettled()) this.found = { ...meanMinute(this.stretch), minutes };
  }

  /** The last minutes of a stretch tell most. */
  private lookBack(): void {
    const last = this.stretch.at(-1);
    const minutes = last ? last.minute - this.began : 0;
    const isLong = minutes >= STEADY.leadMinutes && this.stretch.length === STEADY.windowMinutes;
    if (isLong && this.power >= STEADY.leastLoadW && this.length % STEADY.lookMinutes !== 0) this.look(minutes);
  }

  /** Neither half of the window is warmer than the other, above its room. */
  private isSettled(): boolean {
    const half = STEADY.windowMinutes / 2;
    const [a, b] = [meanMinute(this.stretch.slice(0, half)), meanMinute(this.stretch.slice(half))];
    const rise = Number.isFinite(b.roomC - a.roomC) ? b.roomC - a.roomC : 0;
    const drifts = [...a.partsC.map((c, index) => (b.partsC[index] as number) - c), b.coolantC - a.coolantC];
    return drifts.every((drift) => !Number.isFinite(drift) || Math.abs(drift - rise) < STEADY.driftK);
  }

  private watchThrottling(minute: LogMinute): void {
    const { recent } = this;
    recent.push(minute);
    if (recent.length > THROTTLE.windowMinutes) recent.shift();
    if (recent.length < THROTTLE.windowMinutes) return;
    const half = THROTTLE.windowMinutes / 2;
    minute.partsC.forEach((last, part) => {
      if (!(last >= THROTTLE.leastC)) return;
      const temps = recent.map(({ partsC }) => partsC[part] as number);
      if (Math.max(...temps) - Math.min(...temps) > THROTTLE.pinnedK) return;
      const watts = recent.map(({ powersW }) => powersW[part] as number);
      const [fromW, toW] = [meanOf(watts.slice(0, half)), meanOf(watts.slice(half))];
      if (fromW < THROTTLE.leastW || !(toW < (1 - THROTTLE.fallShare) * fromW)) return;
      this.onThrottled({ minute: minute.minute, part, atC: meanOf(temps), fromW, toW });
    });
  }
}
