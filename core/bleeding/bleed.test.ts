import { describe, expect, it } from 'vitest';
import { judgeBleed, type BleedCycle } from './bleed.js';

const cycle = (runningMm: number, stoppedMm: number, more: Partial<BleedCycle> = {}): BleedCycle => ({
  runningMm,
  stoppedMm,
  bubbles: false,
  noise: false,
  ...more,
});

describe('when a loop counts as bled', () => {
  it('asks for three cycles', () => {
    expect(judgeBleed([])).toMatchObject({ bled: false, missing: ['3 more stop and start cycles'] });
    expect(judgeBleed([cycle(100, 101), cycle(100, 101)]).missing).toEqual(['1 more stop and start cycle']);
  });

  it('is done when the last three agree, the rise is small and nothing bubbles', () => {
    const state = judgeBleed([cycle(90, 99, { bubbles: true }), cycle(100, 101.5), cycle(100.5, 101.5), cycle(100.5, 101.5)]);
    expect(state.bled).toBe(true);
    expect(state.risesMm).toEqual([9, 1.5, 1, 1]);
  });

  it.each<[string, BleedCycle[], string]>([
    ['a level that still moves', [cycle(96, 97), cycle(98, 99), cycle(100, 101)], 'level still moves by 4.0 mm'],
    ['a large rise', [cycle(100, 106), cycle(100, 106), cycle(100, 106)], 'rise at stop is 6.0 mm'],
    ['bubbles', [cycle(100, 101), cycle(100, 101), cycle(100, 101, { bubbles: true })], 'bubbles at the return'],
    ['noise', [cycle(100, 101), cycle(100, 101), cycle(100, 101, { noise: true })], 'the pump still sounds of air'],
  ])('is not done with %s', (_name, cycles, words) => {
    const state = judgeBleed(cycles);
    expect(state.bled).toBe(false);
    expect(state.missing.join()).toContain(words);
  });
});
