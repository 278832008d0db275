import { describe, expect, it } from 'vitest';
import { strengthWords } from '../../edge/words/strength.js';
import { diluteReadyMix } from '../../machine/shop-sums/dose.js';
import { COOLANT, TestRun } from '../../../tests/bench/testRun.js';
import { isTooWeak, strengthOf } from './strength.js';

type Product = { form: 'ready-mix' | 'concentrate'; targetFraction: number | null; leastFraction: number | null };
/** A build whose tested parts brought water in, and then its coolant. */
function filled(waterMl: number, pouredMl: number, product: Product): TestRun {
  const run = new TestRun().upTo('fill');
  run.state.partTests.push({
    eventId: 'x',
    at: '2026-03-10T09:00:00Z',
    source: 'hand',
    value: { part: 'roof', tight: true, leftMl: waterMl } as never,
  });
  return run.say({ ...COOLANT, product }).say({ type: 'pour', volumeMl: pouredMl });
}

describe('the strength of what is inside', () => {
  it('is that of the ready-mix, thinned by the water that was inside: C₁V₁ = C₂V₂', () => {
    const run = filled(60, 540, { form: 'ready-mix', targetFraction: 0.25, leastFraction: 0.95 });
    const strength = strengthOf(run.procedure, run.state);
    expect(strength?.ofFull).toBeCloseTo(diluteReadyMix(600, 60, 1, 0).finalFraction, 12);
    expect(strength?.concentrate).toBeCloseTo(0.9 * 0.25, 12);
    expect(strength && isTooWeak(strength)).toBe(true);
    expect(strength && strengthWords(strength)).toBe('by the book 90 % of what was poured, 60 mL of water were inside; 23 % concentrate; below the 95 % that its sheet asks for'); // prettier-ignore
  });

  it('is what a concentrate was mixed to: the water inside was counted when it was dosed', () => {
    const run = filled(60, 540, { form: 'concentrate', targetFraction: 0.2, leastFraction: null });
    expect(strengthOf(run.procedure, run.state)).toMatchObject({ ofFull: 1, concentrate: 0.2 });
  });

  it('is not told before anything was filled', () => {
    const run = new TestRun().upTo('fill');
    expect(strengthOf(run.procedure, run.state)).toBeNull();
  });

  it('may be measured at any time, but not nothing', () => {
    const run = filled(0, 500, { form: 'ready-mix', targetFraction: null, leastFraction: null });
    expect(run.try({ type: 'coolant-read', strength: null, ph: null })?.fact.why).toBe('nothing-read');
    run.say({ type: 'coolant-read', strength: 0.24, ph: 8.2 });
    expect(run.state.coolantReads).toMatchObject([{ strength: 0.24, ph: 8.2 }]);
  });
});
