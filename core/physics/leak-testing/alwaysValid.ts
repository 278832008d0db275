/** 95 % intervals that stay true however often somebody looks. */

/** How many times its own the mean likelihood of other slopes must be before a slope is excluded: 95 % for the whole test (Ville 1939). */
const TIMES_ITS_OWN = 20;
/** points of the table that a likelihood is read from, of an integral, and of a look from the best outwards */
const POINTS = { table: 161, integral: 65, scan: 24 } as const;
/** widths to each side that an integral covers */
const WIDTHS = 7;

export interface SlopeInterval {
  readonly best: number;
  readonly low: number;
  readonly high: number;
}

/** A log-likelihood that is dear to compute, read from equal steps; between them by parabolas, beyond the ends straight on. */
class Table {
  private readonly values: Float64Array;
  private readonly step: number;

  constructor(
    logL: (slope: number) => number,
    private readonly from: number,
    to: number,
  ) {
    this.step = (to - from) / (POINTS.table - 1);
    this.values = Float64Array.from({ length: POINTS.table }, (_, index) => logL(from + index * this.step));
  }

  at(slope: number): number {
    const place = (slope - this.from) / this.step;
    const last = POINTS.table - 1;
    const v = (index: number): number => this.values[index] as number;
    if (place <= 0) return v(0) + place * (v(1) - v(0));
    if (place >= last) return v(last) + (place - last) * (v(last) - v(last - 1));
    const near = Math.min(last - 1, Math.max(1, Math.round(place)));
    const x = place - near;
    const [a, b, c] = [v(near - 1), v(near), v(near + 1)];
    return b + (x * (c - a)) / 2 + (x * x * (a - 2 * b + c)) / 2;
  }
}

/** Where a single-peaked function is highest. */
function peakOf(f: (x: number) => number, low: number, high: number, steps = 60): number {
  const golden = (Math.sqrt(5) - 1) / 2;
  let [a, b] = [low, high];
  for (let step = 0; step < steps && b - a > 1e-9 * (Math.abs(a) + Math.abs(b)); step += 1) {
    const c = b - golden * (b - a);
    const d = a + golden * (b - a);
    if (f(c) > f(d)) b = d;
    else a = c;
  }
  return (a + b) / 2;
}

/** ln of the mean of L over slopes that are normal about one with a standard deviation, less ln L there. */
function timesItsOwn(logL: (slope: number) => number, best: number, about: number, sd: number): number {
  const f = (slope: number): number => logL(slope) - 0.5 * ((slope - about) / sd) ** 2;
  const peak = peakOf(f, Math.min(best, about), Math.max(best, about), 22);
  // the product is at least as narrow as the normal; how narrow, its own bend says
  const probe = sd / 50;
  const bend = (2 * f(peak) - f(peak - probe) - f(peak + probe)) / probe ** 2;
  const width = 1 / Math.sqrt(Math.max(bend, 1 / sd ** 2));
  const step = (2 * WIDTHS * width) / (POINTS.integral - 1);
  let sum = 0;
  for (let index = 0; index < POINTS.integral; index += 1) sum += Math.exp(f(peak - WIDTHS * width + index * step) - f(peak));
  return f(peak) + Math.log((sum * step) / (sd * Math.sqrt(2 * Math.PI))) - logL(about);
}

/**
 * The slopes that are not excluded: one is when the mean likelihood over slopes, normal about it with a standard
 * deviation, is more than 20 times its own. Valid at every look (mixture martingale; Ville's inequality, Robbins 1970).
 * @param logL single-peaked
 * @param guess near the best, `reach` a width in which the likelihood changes
 */
export function slopeInterval(logL: (slope: number) => number, guess: number, reach: number, sd: number): SlopeInterval {
  let wide = reach;
  let best = peakOf(logL, guess - wide, guess + wide);
  // the peak lies inside, not at an end
  for (let n = 0; n < 40 && Math.abs(best - guess) > 0.9 * wide; n += 1) {
    wide *= 3;
    best = peakOf(logL, guess - wide, guess + wide);
  }
  const limit = Math.log(TIMES_ITS_OWN);
  let half = 4 * sd + 4 * reach;
  let table = new Table(logL, best - half, best + half);
  const excess = (slope: number): number => timesItsOwn((each) => table.at(each), best, slope, sd) - limit;
  for (let n = 0; n < 24 && (excess(best - half) < 0 || excess(best + half) < 0); n += 1) {
    half *= 2;
    table = new Table(logL, best - half, best + half);
  }
  // no wider than it need be, so that its steps are fine where it matters
  for (let n = 0; n < 24 && excess(best - half / 3) > 0 && excess(best + half / 3) > 0; n += 1) {
    half /= 3;
    table = new Table(logL, best - half, best + half);
  }
  // settling may explain a slope far from the best one while those between are excluded: the outermost end counts
  const end = (towards: 1 | -1): number => {
    let reached = 0;
    for (let index = 1; index < POINTS.scan; index += 1) if (excess(best + (towards * half * index) / POINTS.scan) <= 0) reached = index;
    let [inside, outside] = [(half * reached) / POINTS.scan, (half * (reached + 1)) / POINTS.scan];
    for (let step = 0; step < 20; step += 1) {
      const middle = (inside + outside) / 2;
      if (excess(best + towards * middle) > 0) outside = middle;
      else inside = middle;
    }
    return best + towards * inside;
  };
  return { best, low: end(-1), high: end(1) };
}
