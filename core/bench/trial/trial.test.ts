import { describe, expect, it } from 'vitest';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { runTrial } from './trial.js';
import { often } from '../../../tests/often.js';

describe('the led technician', () => {
  it('gets through every procedure by orders alone, with nothing over the lid, no dry pump and no spill', () => {
    const result = runTrial(often(9), 5, () => usualLoop());
    expect(result.complaints).toEqual([]);
    expect(result).toMatchObject({ dead_ends: 0, contradictions: 0, over_lid_runs: 0 });
    expect(result.unwarned_ml).toBeLessThan(0.5);
    expect(result.dry_pump_worst_s).toBeLessThanOrEqual(0.5);
    expect(result.book_inside_2sd).toBeGreaterThanOrEqual(0.93);
  });

  it('plays the same from the same seed', () => {
    const first = runTrial(1, 9, () => usualLoop());
    const again = runTrial(1, 9, () => usualLoop());
    expect(again.trace).toEqual(first.trace);
    expect(again.procedures).toEqual(first.procedures);
  });
});
