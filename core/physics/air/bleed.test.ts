import { describe, expect, it } from 'vitest';
import { judgeBleed, type BleedCycle, type BleedLack } from './bleed.js';

const cycle = (runningMm: number, stoppedMm: number, more: Partial<BleedCycle> = {}): BleedCycle => ({
  runningMm,
  stoppedMm,
  bubbles: false,
  noise: false,
  ...more,
});

describe('when a loop counts as bled', () => {
  it('asks for three cycles', () => {
    expect(judgeBleed([])).toMatchObject({ bled: false, missing: [{ why: 'bleed-cycles', count: 3 }] });
    expect(judgeBleed([cycle(100, 101), cycle(100, 101)]).missing).toEqual([{ why: 'bleed-cycles', count: 1 }]);
  });

  it('is done when the last three agree, the rise is small and nothing bubbles', () => {
    const state = judgeBleed([cycle(90, 99, { bubbles: true }), cycle(100, 101.5), cycle(100.5, 101.5), cycle(100.5, 101.5)]);
    expect(state.bled).toBe(true);
    expect(state.risesMm).toEqual([9, 1.5, 1, 1]);
  });

  it.each<[string, BleedCycle[], BleedLack]>([
    ['a level that still moves', [cycle(96, 97), cycle(98, 99), cycle(100, 101)], { why: 'bleed-drift', mm: 4 }],
    ['a large rise', [cycle(100, 106), cycle(100, 106), cycle(100, 106)], { why: 'bleed-rise', mm: 6, mostMm: 2 }],
    ['bubbles', [cycle(100, 101), cycle(100, 101), cycle(100, 101, { bubbles: true })], { why: 'bleed-bubbles' }],
    ['an empty reservoir', [cycle(0, 0), cycle(0, 0), cycle(0, 0)], { why: 'bleed-empty' }],
    ['noise', [cycle(100, 101), cycle(100, 101), cycle(100, 101, { noise: true })], { why: 'bleed-noise' }],
  ])('is not done with %s', (_name, cycles, lack) => {
    const state = judgeBleed(cycles);
    expect(state.bled).toBe(false);
    expect(state.missing).toContainEqual(lack);
  });
});
