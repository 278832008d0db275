import { describe, expect, it } from 'vitest';
import { TestRun } from '../../../tests/bench/testRun.js';
import { FILL_SYMPTOM_KEYS, rankFillCauses, type FillEvidence } from './causes.js';

const evidence: FillEvidence = { primes: true, hasValve: true, turned: false, pumpOn: true };
const first = (...given: Parameters<typeof rankFillCauses>): string | undefined => rankFillCauses(...given)[0]?.cause;

describe('troubles of filling', () => {
  it('are ranked by what is usual behind each symptom, as shares of one', () => {
    expect(first('level-stays', evidence)).toBe('pump-stands');
    expect(first('nothing-returns', evidence)).toBe('kink');
    expect(first('comes-out', evidence)).toBe('too-much-at-once');
    expect(first('foams', evidence)).toBe('residue');
    for (const symptom of FILL_SYMPTOM_KEYS)
      expect(rankFillCauses(symptom, evidence).reduce((sum, { probability }) => sum + probability, 0)).toBeCloseTo(1, 9);
  });

  it('listen to this very loop: one that its pump cannot prime, one without a valve, a pump that runs', () => {
    expect(first('nothing-returns', { ...evidence, primes: false })).toBe('cannot-lift');
    const share = (cause: string, more: Partial<FillEvidence>, symptom: 'level-stays' | 'comes-out'): number =>
      rankFillCauses(symptom, { ...evidence, ...more }).find((each) => each.cause === cause)?.probability ?? 0;
    expect(share('valve-shut', { hasValve: false }, 'level-stays')).toBeLessThan(share('valve-shut', {}, 'level-stays'));
    expect(share('falls-back', { pumpOn: false }, 'comes-out')).toBeGreaterThan(share('falls-back', {}, 'comes-out'));
  });

  it('learn from what this workshop found, and not of other symptoms', () => {
    expect(first('foams', evidence, { 'draws-air': 9 })).toBe('draws-air');
    expect(first('level-stays', evidence, { 'draws-air': 9 })).toBe('pump-stands');
  });

  it('keep the fill open until they are answered', () => {
    const run = new TestRun().upTo('fill').pourAll();
    run.say({ type: 'fill-trouble', symptom: 'foams', text: '' });
    expect(run.try({ type: 'step-done', step: 'fill' })?.message).toContain('it foams');
    const trouble = run.events.at(-1)?.id ?? '';
    expect(run.try({ type: 'fill-trouble-solved', trouble, cause: 'magic', fix: 'none' })?.fact.why).toBe('unknown-cause');
    run.say({ type: 'fill-trouble-solved', trouble, cause: 'residue', fix: 'rinsed the jug' });
    expect(run.try({ type: 'fill-trouble-solved', trouble, cause: 'residue', fix: 'again' })?.fact.why).toBe('unknown-trouble');
    run.tick('fill');
    expect(run.try({ type: 'step-done', step: 'fill' })).toBeNull();
  });
});
