/**
 * A symmetric positive definite matrix on a fixed graph, factored as L·D·Lᵀ again and again without allocating.
 * The order is found once by minimum degree, and with it where every product of the elimination lands.
 */
export interface SparseFactor {
  readonly size: number;
  /** entry of the diagonal for node i: `values[diagonal[i]]` */
  readonly diagonal: Int32Array;
  /** entry for edge e of the graph: `values[edge[e]]`; −1 where an end is not in the matrix */
  readonly edge: Int32Array;
  /** to fill with the matrix before `factor`, which overwrites it with L and D */
  readonly values: Float64Array;
  /** @returns false when the matrix is not positive definite */
  factor(): boolean;
  /** Solves in place, `x` by node. */
  solve(x: Float64Array): void;
}

interface Elimination {
  readonly order: number[];
  /** neighbours still there when the node was eliminated */
  readonly later: number[][];
}

/** Takes the node with the fewest neighbours first and joins those it leaves (minimum degree). */
function eliminate(size: number, edges: readonly (readonly [number, number])[]): Elimination {
  const around = Array.from({ length: size }, () => new Set<number>());
  for (const [a, b] of edges) {
    if (a === b || a < 0 || b < 0) continue;
    (around[a] as Set<number>).add(b);
    (around[b] as Set<number>).add(a);
  }
  // Buckets by degree; a node whose degree has changed since is looked at again in its new bucket.
  const buckets: number[][] = [];
  const put = (node: number): void => {
    const degree = (around[node] as Set<number>).size;
    (buckets[degree] ??= []).push(node);
  };
  for (let node = 0; node < size; node += 1) put(node);
  const done = new Uint8Array(size);
  const order: number[] = [];
  const later: number[][] = [];
  let degree = 0;
  while (order.length < size) {
    const node = buckets[degree]?.pop();
    if (node === undefined) {
      degree += 1;
      continue;
    }
    if (done[node] === 1 || (around[node] as Set<number>).size !== degree) continue;
    done[node] = 1;
    const rest = [...(around[node] as Set<number>)];
    order.push(node);
    later.push(rest);
    for (const one of rest) {
      const set = around[one] as Set<number>;
      set.delete(node);
      for (const other of rest) if (other !== one) set.add(other);
    }
    for (const one of rest) put(one);
    degree = Math.max(0, degree - 1);
  }
  return { order, later };
}

/** `edges` join nodes 0 … size − 1; an end of −1 stands for a node that is held fixed and not in the matrix. */
export function prepareSparse(size: number, edges: readonly (readonly [number, number])[]): SparseFactor {
  const { order, later } = eliminate(size, edges);
  const rank = new Int32Array(size);
  order.forEach((node, index) => (rank[node] = index));
  const columns = later.map((rest) => rest.map((node) => rank[node] as number).sort((a, b) => a - b));
  const starts = new Int32Array(size + 1);
  columns.forEach((rows, column) => (starts[column + 1] = (starts[column] as number) + rows.length));
  const rows = Int32Array.from(columns.flat());
  // Diagonals first, then the columns below them.
  const place = (row: number, column: number): number =>
    row === column ? row : size + (starts[column] as number) + (columns[column] as number[]).indexOf(row);
  const targets: number[] = [];
  columns.forEach((below) => {
    for (let a = 0; a < below.length; a += 1)
      for (let b = a; b < below.length; b += 1) targets.push(place(below[b] as number, below[a] as number));
  });
  const targetOf = Int32Array.from(targets);
  const values = new Float64Array(size + rows.length);
  const work = new Float64Array(size);
  const edge = Int32Array.from(edges, ([a, b]) => {
    if (a < 0 || b < 0 || a === b) return -1;
    const [i, j] = [rank[a] as number, rank[b] as number];
    return place(Math.max(i, j), Math.min(i, j));
  });

  const factor = (): boolean => {
    let target = 0;
    for (let column = 0; column < size; column += 1) {
      const pivot = values[column] as number;
      if (!(pivot > 0)) return false;
      const [from, to] = [starts[column] as number, starts[column + 1] as number];
      for (let a = from; a < to; a += 1) {
        const below = values[size + a] as number;
        const ratio = below / pivot;
        for (let b = a; b < to; b += 1) {
          const at = targetOf[target++] as number;
          values[at] = (values[at] as number) - ratio * (b === a ? below : (values[size + b] as number));
        }
        values[size + a] = ratio;
      }
    }
    return true;
  };

  const solve = (x: Float64Array): void => {
    for (let index = 0; index < size; index += 1) work[index] = x[order[index] as number] as number;
    for (let column = 0; column < size; column += 1) {
      const value = work[column] as number;
      for (let at = starts[column] as number; at < (starts[column + 1] as number); at += 1) {
        const row = rows[at] as number;
        work[row] = (work[row] as number) - (values[size + at] as number) * value;
      }
    }
    for (let column = size - 1; column >= 0; column -= 1) {
      let value = (work[column] as number) / (values[column] as number);
      for (let at = starts[column] as number; at < (starts[column + 1] as number); at += 1) {
        value -= (values[size + at] as number) * (work[rows[at] as number] as number);
      }
      work[column] = value;
    }
    for (let index = 0; index < size; index += 1) x[order[index] as number] = work[index] as number;
  };

  return { size, diagonal: rank, edge, values, factor, solve };
}
