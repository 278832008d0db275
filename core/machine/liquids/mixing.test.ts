import { describe, expect, it } from 'vitest';
import { mayMix, type Miscible } from './mixing.js';

const clear = (change: Partial<Miscible> = {}): Miscible => ({
  productId: 'a',
  name: 'Plain Clear',
  coolantClass: 'clear',
  glycol: null,
  inhibitor: 'K2',
  ...change,
});

describe('which coolants may meet', () => {
  it('lets the same product follow itself, and its sister of the same base and package', () => {
    expect(mayMix(clear(), clear()).verdict).toBe('fine');
    expect(mayMix(clear(), clear({ productId: 'b' })).verdict).toBe('fine');
  });

  it('rinses between different bases or packages, and where nobody knows', () => {
    expect(mayMix(clear(), clear({ productId: 'b', glycol: 'propylene' })).verdict).toBe('rinse-between');
    expect(mayMix(clear(), clear({ productId: 'b', inhibitor: 'other' })).verdict).toBe('rinse-between');
    expect(mayMix(clear({ inhibitor: '' }), clear({ productId: 'b', inhibitor: '' })).verdict).toBe('rinse-between');
    expect(mayMix(null, clear()).verdict).toBe('never');
  });

  it('never lets a suspension meet anything else, either way round', () => {
    const pearl = clear({ productId: 'p', name: 'Pearl', coolantClass: 'show' });
    expect(mayMix(pearl, clear()).verdict).toBe('never');
    expect(mayMix(clear(), pearl).verdict).toBe('never');
    expect(mayMix(clear(), pearl).reason).toContain('Pearl');
    expect(mayMix(pearl, pearl).verdict).toBe('fine');
    expect(mayMix(pearl, clear()).mostOldFraction).toBe(mayMix(null, clear()).mostOldFraction);
  });
});
