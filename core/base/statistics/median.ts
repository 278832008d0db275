/** The middle of sorted values; of an even count the mean of the two in the middle. NaN for none. */
export function medianOf(sorted: readonly number[]): number {
  const middle = sorted.length >> 1;
  const upper = sorted[middle] ?? NaN;
  return sorted.length % 2 === 1 ? upper : ((sorted[middle - 1] ?? NaN) + upper) / 2;
}

/** The same of values in any order. */
export const middleOf = (values: readonly number[]): number => medianOf([...values].sort((a, b) => a - b));
