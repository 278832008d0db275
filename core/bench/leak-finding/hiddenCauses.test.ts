import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../base/random/random.js';
import { rankCauses, type LeakPlace } from './causes.js';
import { drawJointCause, drawLeak, SEEN_AT } from './hiddenCauses.js';

const PLACES: readonly LeakPlace[] = ['joint', 'reservoir', 'radiator', 'block', 'pump', 'port'];
const DRAWS = 3000;

describe('leaks as benches meet them', () => {
  it('have their true cause among the first three of the ranking, nine times in ten', () => {
    const random = seededRandom(20_261_128);
    let all = 0;
    for (const place of PLACES) {
      let hits = 0;
      for (let n = 0; n < DRAWS; n += 1) {
        const { cause, signs } = drawLeak(random, place);
        if (rankCauses(signs).slice(0, 3).some((each) => each.cause === cause)) hits += 1; // prettier-ignore
      }
      // where a reservoir leaks, seal, ring, crack and a cap look much alike
      expect(hits / DRAWS, place).toBeGreaterThanOrEqual(0.88);
      all += hits;
    }
    expect(all / (DRAWS * PLACES.length)).toBeGreaterThanOrEqual(0.9);
  });

  it('are drawn at joints as often as their frequency says, and each shows itself to an eye close by', () => {
    const random = seededRandom(7);
    const counts = new Map<string, number>();
    for (let n = 0; n < DRAWS; n += 1) {
      const cause = drawJointCause(random);
      counts.set(cause, (counts.get(cause) ?? 0) + 1);
    }
    // 6 of 6 + 3 + 3 + 2, within three standard deviations of a share
    expect((counts.get('tube-not-seated') ?? 0) / DRAWS).toBeCloseTo(6 / 14, 1);
    expect([...counts.keys()].every((cause) => Object.hasOwn(SEEN_AT, cause))).toBe(true);
    expect(new Set(Object.values(SEEN_AT)).size).toBe(Object.keys(SEEN_AT).length);
  });
});
