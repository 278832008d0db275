import { describe, expect, it } from 'vitest';
import { schoolsSchema } from '../../physics/leak-testing/schoolsSchema.js';
import { DEFAULT_SCHOOLS } from '../../physics/leak-testing/schools.js';
import { BOOKED_KIND_KEYS } from '../job-kinds/kinds.js';
import { runSchools, schoolsAfter } from './usualSchools.js';

const shop = {
  ...DEFAULT_SCHOOLS,
  gaugeResolutionKpa: 0.5,
  byKind: { 'strip-clean': { leak: 'wet-only', wet: 'hours' } },
  loadsMayStay: ['commissioning'],
} as const;

describe('how leaks are looked for after a job', () => {
  it('is what a run can begin with, whatever else the workshop says of its tests', () => {
    for (const kind of BOOKED_KIND_KEYS) {
      const begins = runSchools(kind, shop);
      expect(schoolsSchema.validate(begins).error, kind).toBeUndefined();
      expect(begins).toEqual({ limit: shop.limit, gaugeResolutionKpa: 0.5, ...schoolsAfter(kind, shop) });
    }
  });

  it('is the workshop’s own for builds, what is usual for services, and what was said of a kind before both', () => {
    expect(schoolsAfter('commissioning', { ...shop, wet: 'hours' })).toEqual({ leak: 'dry-then-wet', wet: 'hours' });
    expect(schoolsAfter('strip-clean', shop)).toEqual({ leak: 'wet-only', wet: 'hours' });
    expect(schoolsAfter('partial-drain', shop)).toEqual({ leak: 'opened-joints', wet: 'ten-minutes' });
  });
});
