/** Where a series changes its level, and how likely that is by chance. */
export interface ChangePoint {
  /** index of the last value before the change */
  readonly last: number;
  /** K of Pettitt */
  readonly statistic: number;
  /** approximate, two-sided */
  readonly p: number;
}

/**
 * Pettitt's test for one change of level at an unknown place (Pettitt 1979, J. R. Stat. Soc. C 28, 126): ranks against ranks, so that a
 * single wild value moves nothing. p ≈ 2·exp(−6K²/(n³ + n²)), at most 1.
 * @param values in the order of time
 * @returns null for fewer than four
 */
export function pettitt(values: readonly number[]): ChangePoint | null {
  const n = values.length;
  if (n < 4) return null;
  let [sum, statistic, last] = [0, 0, 0];
  for (let t = 0; t < n - 1; t += 1) {
    for (const other of values) sum += Math.sign((values[t] as number) - other);
    if (Math.abs(sum) > statistic) [statistic, last] = [Math.abs(sum), t];
  }
  return { last, statistic, p: Math.min(1, 2 * Math.exp((-6 * statistic ** 2) / (n ** 3 + n ** 2))) };
}
