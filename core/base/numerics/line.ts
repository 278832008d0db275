/** A straight line y = intercept + slope·x by least squares. */
export interface Line {
  readonly intercept: number;
  readonly slope: number;
  /** standard error of the slope, never below what `leastSd` in y allows */
  readonly slopeSe: number;
}

/**
 * Ordinary least squares with equal weights. Returns null when all x are equal or fewer than two points are given.
 * @param leastSd standard deviation of one y that is known beforehand; the scatter may show more, never less
 */
export function fitLine(x: readonly number[], y: readonly number[], leastSd: number): Line | null {
  const n = x.length;
  const meanX = x.reduce((sum, value) => sum + value, 0) / n;
  const meanY = y.reduce((sum, value) => sum + value, 0) / n;
  const sxx = x.reduce((sum, value) => sum + (value - meanX) ** 2, 0);
  if (n < 2 || sxx === 0) return null;
  const slope = x.reduce((sum, value, index) => sum + (value - meanX) * ((y[index] as number) - meanY), 0) / sxx;
  const intercept = meanY - slope * meanX;
  const squares = x.reduce((sum, value, index) => sum + ((y[index] as number) - intercept - slope * value) ** 2, 0);
  const scatter = n > 2 ? Math.sqrt(squares / (n - 2)) : 0;
  return { intercept, slope, slopeSe: Math.max(scatter, leastSd) / Math.sqrt(sxx) };
}
