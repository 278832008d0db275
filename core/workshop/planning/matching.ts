/**
 * Cost of the cheapest one-to-one assignment of rows to columns (Kuhn 1955, Munkres 1957; shortest augmenting paths with
 * potentials as in Jonker & Volgenant 1987), O(n³).
 * @param cost square, finite, not negative
 */
export function cheapestMatching(cost: readonly (readonly number[])[]): number {
  const n = cost.length;
  const rowPotential = new Float64Array(n + 1);
  const columnPotential = new Float64Array(n + 1);
  /** row that holds a column, 1-based; 0: free */
  const holder = new Int32Array(n + 1);
  const way = new Int32Array(n + 1);
  for (let row = 1; row <= n; row += 1) {
    holder[0] = row;
    let column = 0;
    const least = new Float64Array(n + 1).fill(Number.POSITIVE_INFINITY);
    const seen = new Uint8Array(n + 1);
    do {
      seen[column] = 1;
      const from = holder[column] as number;
      let delta = Number.POSITIVE_INFINITY;
      let next = 0;
      for (let to = 1; to <= n; to += 1) {
        if (seen[to] === 1) continue;
        const reduced =
          ((cost[from - 1] as readonly number[])[to - 1] as number) - (rowPotential[from] as number) - (columnPotential[to] as number);
        if (reduced < (least[to] as number)) {
          least[to] = reduced;
          way[to] = column;
        }
        if ((least[to] as number) < delta) {
          delta = least[to] as number;
          next = to;
        }
      }
      for (let to = 0; to <= n; to += 1) {
        if (seen[to] === 1) {
          const own = holder[to] as number;
          rowPotential[own] = (rowPotential[own] as number) + delta;
          columnPotential[to] = (columnPotential[to] as number) - delta;
        } else least[to] = (least[to] as number) - delta;
      }
      column = next;
    } while (holder[column] !== 0);
    do {
      const back = way[column] as number;
      holder[column] = holder[back] as number;
      column = back;
    } while (column !== 0);
  }
  let total = 0;
  for (let column = 1; column <= n; column += 1) total += (cost[(holder[column] as number) - 1] as readonly number[])[column - 1] as number;
  return total;
}
