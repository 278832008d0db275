/** Smaller pivots mean that nothing decides the unknown. */
const LEAST_PIVOT = 1e-12;

/**
 * Solves A·x = b by Gaussian elimination with partial pivoting; A by rows, overwritten. For a few dozen unknowns.
 * @returns x, or null when A is singular
 */
export function solveDense(rows: Float64Array[], right: Float64Array): Float64Array | null {
  const size = right.length;
  for (let column = 0; column < size; column += 1) {
    let pivot = column;
    for (let row = column + 1; row < size; row += 1) {
      if (Math.abs((rows[row] as Float64Array)[column] as number) > Math.abs((rows[pivot] as Float64Array)[column] as number)) pivot = row;
    }
    [rows[column], rows[pivot]] = [rows[pivot] as Float64Array, rows[column] as Float64Array];
    [right[column], right[pivot]] = [right[pivot] as number, right[column] as number];
    const top = rows[column] as Float64Array;
    if (Math.abs(top[column] as number) < LEAST_PIVOT) return null;
    for (let row = column + 1; row < size; row += 1) {
      const line = rows[row] as Float64Array;
      const ratio = (line[column] as number) / (top[column] as number);
      if (ratio === 0) continue;
      for (let at = column; at < size; at += 1) line[at] = (line[at] as number) - ratio * (top[at] as number);
      right[row] = (right[row] as number) - ratio * (right[column] as number);
    }
  }
  const x = new Float64Array(size);
  for (let row = size - 1; row >= 0; row -= 1) {
    const line = rows[row] as Float64Array;
    let value = right[row] as number;
    for (let at = row + 1; at < size; at += 1) value -= (line[at] as number) * (x[at] as number);
    x[row] = value / (line[row] as number);
  }
  return x;
}
