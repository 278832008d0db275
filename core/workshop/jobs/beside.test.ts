import { describe, expect, it } from 'vitest';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { BESIDE_KEYS, besideAs, besideMinutes, mayGoBeside, within } from './beside.js';
import { BOOKED_KIND_KEYS, JOB_KIND_KEYS } from '../job-kinds/kinds.js';
import { leastTime } from './leastTime.js';
import { usualHours } from './usualHours.js';
import { schoolsAfter } from './usualSchools.js';
import { DEFAULT_SCHOOLS } from '../../physics/leak-testing/schools.js';

const loop = usualLoop();

describe('works that go along with a job', () => {
  it('are never offered where the job does them by itself, and keep nothing of another kind', () => {
    for (const kind of BOOKED_KIND_KEYS) {
      expect(
        mayGoBeside(kind).filter((work) => within(kind).includes(work)),
        kind,
      ).toEqual([]);
      expect(besideAs(kind, BESIDE_KEYS), kind).toEqual(mayGoBeside(kind));
    }
    expect(besideAs('retirement', BESIDE_KEYS)).toEqual([]);
    expect(besideAs('commissioning', BESIDE_KEYS)).toEqual([]);
  });

  it('take their own minutes, and no others', () => {
    for (const kind of JOB_KIND_KEYS) {
      const along = mayGoBeside(kind);
      expect(usualHours(kind, loop, null, along) - usualHours(kind, loop), kind).toBeCloseTo(besideMinutes(along) / 60, 9);
    }
  });
});

describe('how long a job takes at the least', () => {
  const of = (kind: (typeof JOB_KIND_KEYS)[number]) => leastTime(kind, loop, { ours: schoolsAfter(kind, DEFAULT_SCHOOLS) });

  it('is never more than as the workshop does it, and says what it leaves out where it is less', () => {
    for (const kind of BOOKED_KIND_KEYS) {
      const { usual, least, givenUp } = leastTime(kind, loop, { ours: schoolsAfter(kind, DEFAULT_SCHOOLS) });
      expect(least.handsMinutes, kind).toBe(usual.handsMinutes);
      expect(least.aloneMinutes, kind).toBeLessThanOrEqual(usual.aloneMinutes);
      expect(givenUp.length > 0, kind).toBe(least.aloneMinutes < usual.aloneMinutes);
    }
  });

  it('of a swapped card is about forty minutes of hands, its joints watched ten', () => {
    const { least, usual, givenUp } = of('partial-drain');
    expect(least.handsMinutes).toBe(45);
    // ten minutes of pump and two readings told from their curves
    expect(least.aloneMinutes).toBe(40);
    expect(usual.aloneMinutes).toBe(100);
    expect(givenUp).toEqual(['reading-short']);
  });

  it('of a strip gives up the day with the pump and the air before it', () => {
    expect(of('strip-clean').givenUp).toEqual(['slow-weep', 'before-liquid', 'reading-short']);
    expect(of('top-up')).toMatchObject({ usual: { aloneMinutes: 0 }, givenUp: [] });
  });
});
