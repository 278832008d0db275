import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { solveDense } from './dense.js';
import { prepareSparse, type SparseFactor } from './sparse.js';

type Edge = readonly [number, number];

/** Conductances on the edges, and one to ground at every node: the matrix a network gives. */
function fill(factor: SparseFactor, edges: readonly Edge[], ease: (edge: number) => number, ground: number): Float64Array[] {
  const dense = Array.from({ length: factor.size }, () => new Float64Array(factor.size));
  factor.values.fill(0);
  const add = (place: number, row: number, column: number, value: number): void => {
    factor.values[place] = (factor.values[place] as number) + value;
    (dense[row] as Float64Array)[column] = ((dense[row] as Float64Array)[column] as number) + value;
    if (row !== column) (dense[column] as Float64Array)[row] = ((dense[column] as Float64Array)[row] as number) + value;
  };
  for (let node = 0; node < factor.size; node += 1) add(factor.diagonal[node] as number, node, node, ground);
  edges.forEach(([a, b], edge) => {
    if (a === b) return;
    for (const node of [a, b]) if (node >= 0) add(factor.diagonal[node] as number, node, node, ease(edge));
    if (a >= 0 && b >= 0) add(factor.edge[edge] as number, a, b, -ease(edge));
  });
  return dense;
}

describe('the sparse factor of a network', () => {
  it('solves a chain that hangs on one fixed end by hand', () => {
    // 0 —1— 1 —1— fixed; one unit in at node 0: heads 2 and 1
    const edges: Edge[] = [
      [0, 1],
      [1, -1],
    ];
    const factor = prepareSparse(2, edges);
    fill(factor, edges, () => 1, 0);
    expect(factor.edge[1]).toBe(-1);
    expect(factor.factor()).toBe(true);
    const x = Float64Array.of(1, 0);
    factor.solve(x);
    expect([...x]).toEqual([2, 1]);
  });

  it('agrees with a dense solver on any graph, again and again with other values', () => {
    const size = 9;
    const node = fc.integer({ min: -1, max: size - 1 });
    const edgesOf = fc.array(fc.tuple(node, node), { minLength: 1, maxLength: 24 });
    const easeOf = fc.array(fc.double({ min: 0.01, max: 100, noNaN: true }), { minLength: 24, maxLength: 24 });
    fc.assert(
      fc.property(edgesOf, easeOf, easeOf, (edges, first, second) => {
        const factor = prepareSparse(size, edges);
        for (const eases of [first, second]) {
          const dense = fill(factor, edges, (edge) => eases[edge] as number, 0.5);
          const right = Float64Array.from({ length: size }, (_, row) => row - 3);
          const expected = solveDense(dense, right.slice());
          expect(factor.factor()).toBe(true);
          factor.solve(right);
          right.forEach((value, row) => expect(value).toBeCloseTo(expected?.[row] as number, 6));
        }
      }),
      { numRuns: 100 },
    );
  });

  it('says when a piece hangs on nothing: its heads are not decided', () => {
    const edges: Edge[] = [[0, 1]];
    const factor = prepareSparse(2, edges);
    fill(factor, edges, () => 1, 0);
    expect(factor.factor()).toBe(false);
  });

  it('has nothing to do for no unknowns', () => {
    const factor = prepareSparse(0, [[-1, -1]]);
    expect(factor.factor()).toBe(true);
    expect(() => factor.solve(new Float64Array(0))).not.toThrow();
  });
});
