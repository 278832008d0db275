/** A symmetric positive definite matrix, factored once: A = L·Lᵀ. For a few dozen unknowns. */
export interface Cholesky {
  /** ln det A */
  readonly logDet: number;
  /** x with A·x = b */
  solve(right: ArrayLike<number>): Float64Array;
}

/** @param rows A by rows; its lower half is read. @returns null when A is not positive definite */
export function cholesky(rows: readonly ArrayLike<number>[]): Cholesky | null {
  const size = rows.length;
  const lower = rows.map((row) => Float64Array.from(row));
  let logDet = 0;
  for (let at = 0; at < size; at += 1) {
    const line = lower[at] as Float64Array;
    for (let column = 0; column <= at; column += 1) {
      const other = lower[column] as Float64Array;
      let value = line[column] as number;
      for (let k = 0; k < column; k += 1) value -= (line[k] as number) * (other[k] as number);
      if (column < at) line[column] = value / (other[column] as number);
      else if (value > 0) line[at] = Math.sqrt(value);
      else return null;
    }
    logDet += 2 * Math.log(line[at] as number);
  }
  const solve = (right: ArrayLike<number>): Float64Array => {
    const x = Float64Array.from(right);
    for (let row = 0; row < size; row += 1) {
      const line = lower[row] as Float64Array;
      let value = x[row] as number;
      for (let k = 0; k < row; k += 1) value -= (line[k] as number) * (x[k] as number);
      x[row] = value / (line[row] as number);
    }
    for (let row = size - 1; row >= 0; row -= 1) {
      let value = x[row] as number;
      for (let k = row + 1; k < size; k += 1) value -= ((lower[k] as Float64Array)[row] as number) * (x[k] as number);
      x[row] = value / ((lower[row] as Float64Array)[row] as number);
    }
    return x;
  };
  return { logDet, solve };
}
