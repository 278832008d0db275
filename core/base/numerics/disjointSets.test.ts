import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DisjointSets } from './disjointSets.js';

/** Groups by walking the merges as edges, the slow way. */
function groupsByWalking(size: number, merges: readonly (readonly [number, number])[]): number[] {
  const label = Array.from({ length: size }, (_, member) => member);
  for (let round = 0; round < size; round += 1) {
    for (const [a, b] of merges) {
      const least = Math.min(label[a] as number, label[b] as number);
      label[a] = least;
      label[b] = least;
    }
  }
  return label;
}

describe('groups that are merged', () => {
  it('begin alone and are numbered in the order of their first member', () => {
    const sets = new DisjointSets(4);
    expect([...sets.number().of]).toEqual([0, 1, 2, 3]);
    sets.merge(3, 0);
    expect(sets.number()).toEqual({ of: Int32Array.of(0, 1, 2, 0), count: 3 });
    expect(sets.add()).toBe(4);
    expect(sets.number().count).toBe(4);
  });

  it('hold together whoever is joined by any chain of merges, and nobody else', () => {
    const size = 12;
    const member = fc.nat(size - 1);
    fc.assert(
      fc.property(fc.array(fc.tuple(member, member), { maxLength: 20 }), (merges) => {
        const sets = new DisjointSets(size);
        for (const [a, b] of merges) sets.merge(a, b);
        const label = groupsByWalking(size, merges);
        const { of, count } = sets.number();
        for (let a = 0; a < size; a += 1) {
          for (let b = 0; b < size; b += 1) {
            const together = label[a] === label[b];
            expect(sets.find(a) === sets.find(b)).toBe(together);
            expect(of[a] === of[b]).toBe(together);
          }
        }
        expect(count).toBe(new Set(label).size);
      }),
      { numRuns: 200 },
    );
  });
});
