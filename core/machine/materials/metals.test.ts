import { describe, expect, it } from 'vitest';
import { judgeMetals, judgePair } from './metals.js';

describe('wetted metals', () => {
  it.each([
    ['copper', 'nickel', 'fine'],
    ['copper', 'brass', 'fine'],
    ['brass', 'stainless', 'fine'],
    ['nickel', 'stainless', 'with-inhibitor'],
    ['tin-lead solder', 'copper', 'with-inhibitor'],
    ['tin-lead solder', 'nickel', 'with-inhibitor'],
    ['chromium plate', 'nickel', 'warn'],
    ['silver', 'nickel', 'warn'],
    ['aluminium', 'copper', 'refuse'],
    ['brass', 'aluminium', 'refuse'],
    ['zinc', 'copper', 'warn'],
  ] as const)('%s with %s: %s', (a, b, verdict) => {
    expect(judgePair(a, b).verdict).toBe(verdict);
    expect(judgePair(b, a)).toEqual(judgePair(a, b));
  });

  it('puts the worst pair first and leaves out what is no metal', () => {
    const pairs = judgeMetals(['acetal', 'nickel', 'copper', 'aluminium', 'copper', 'acrylic']);
    expect(pairs.length).toBe(3);
    expect(pairs[0]).toMatchObject({ baser: 'aluminium', nobler: 'copper', verdict: 'refuse' });
    expect(pairs[0]?.apartV).toBeCloseTo(0.55, 9);
  });
});
