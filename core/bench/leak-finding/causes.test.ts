import { LEAK_CAUSE_KEYS, placeOf, rankCauses, type LeakPlace, LEAK_AMOUNT, LEAK_WHEN } from './causes.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const PLACES: LeakPlace[] = ['joint', 'reservoir', 'radiator', 'block', 'pump', 'port', 'other'];
const symptoms = fc.record({
  place: fc.constantFrom(...PLACES),
  when: fc.constantFrom(...LEAK_WHEN),
  amount: fc.constantFrom(...LEAK_AMOUNT),
});

describe('causes of a leak', () => {
  it.each([
    ['gush at the reservoir on the first pour', { place: 'reservoir', when: 'first-pour', amount: 'gush' }, 'base-seal'],
    ['gush at a radiator once the pump starts', { place: 'radiator', when: 'pump-start', amount: 'gush' }, 'screw-through-tube'],
    ['drip at a joint once the pump starts', { place: 'joint', when: 'pump-start', amount: 'drip' }, 'tube-not-seated'],
    ['seep at a block after hours', { place: 'block', when: 'after-hours', amount: 'seep' }, 'uneven-gasket'],
    ['drip at a joint after it was moved', { place: 'joint', when: 'after-moving', amount: 'drip' }, 'strained-joint'],
    ['seep at a warm joint', { place: 'joint', when: 'warm', amount: 'seep' }, 'soft-when-warm'],
    ['liquid at a port while pouring', { place: 'port', when: 'first-pour', amount: 'drip' }, 'overflow'],
  ] as const)('%s', (_name, seen, cause) => {
    expect(rankCauses(seen)[0]?.cause).toBe(cause);
  });

  it('are probabilities over all causes, for whatever was seen', () => {
    fc.assert(
      fc.property(symptoms, (seen) => {
        const ranked = rankCauses(seen);
        expect(ranked.map(({ cause }) => cause).sort()).toEqual([...LEAK_CAUSE_KEYS].sort());
        expect(ranked.reduce((sum, { probability }) => sum + probability, 0)).toBeCloseTo(1, 9);
        for (let index = 1; index < ranked.length; index += 1)
          expect(ranked[index - 1]?.probability).toBeGreaterThanOrEqual(ranked[index]?.probability ?? 1);
      }),
    );
  });

  it('follow what the workshop itself has found', () => {
    const seen = { place: 'joint', when: 'pump-start', amount: 'drip' } as const;
    const before = rankCauses(seen).find(({ cause }) => cause === 'cut-not-square')?.probability ?? 0;
    const after = rankCauses(seen, { 'cut-not-square': 30 });
    expect(after.find(({ cause }) => cause === 'cut-not-square')?.probability).toBeGreaterThan(before);
    expect(after[0]?.cause).toBe('cut-not-square');
    expect(after[0]?.confirmed).toBe(30);
  });

  it('are not found where they cannot be, however often elsewhere', () => {
    const ranked = rankCauses({ place: 'joint', when: 'pump-start', amount: 'gush' }, { 'screw-through-tube': 500 });
    expect(ranked[0]?.cause).not.toBe('screw-through-tube');
  });

  it('know a place by its part', () => {
    expect([placeOf('radiator'), placeOf(null), placeOf('junction'), placeOf('thing')]).toEqual(['radiator', 'joint', 'port', 'other']);
  });
});
