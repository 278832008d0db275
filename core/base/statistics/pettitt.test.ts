import { describe, expect, it } from 'vitest';
import { seededRandom } from '../random/random.js';
import { pettitt } from './pettitt.js';

describe('a change of level', () => {
  it('is found where it is, with K counted by hand', () => {
    // three against three, all of the first below all of the second: K = 9
    const found = pettitt([1, 2, 3, 11, 12, 13]);
    expect(found).toMatchObject({ last: 2, statistic: 9 });
    expect(found?.p).toBeCloseTo(2 * Math.exp((-6 * 81) / (216 + 36)), 12);
    expect(pettitt([1, 2, 3])).toBeNull();
  });

  it('is not moved by one wild value, nor by how large the step is', () => {
    const low = Array.from({ length: 20 }, (_, n) => (n % 3) / 10);
    const high = Array.from({ length: 20 }, (_, n) => 1 + (n % 3) / 10);
    const found = pettitt([...low, ...high]);
    expect(found?.last).toBe(19);
    expect(pettitt([...low, ...high.map((value) => 1000 * value)])).toEqual(found);
    expect(pettitt([...low.slice(1), 1e9, ...high])?.last).toBeGreaterThan(17);
  });

  it('is seen in noise alone no more often than its p says', () => {
    const random = seededRandom(5);
    let seen = 0;
    for (let n = 0; n < 400; n += 1) seen += (pettitt(Array.from({ length: 30 }, () => random.normal()))?.p ?? 1) < 0.05 ? 1 : 0;
    expect(seen / 400).toBeLessThan(0.07);
  });
});
