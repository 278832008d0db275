import { describe, expect, it } from 'vitest';
import { reasonWords } from '../../edge/words/dates.js';
import { stageSince } from './falloutStages.js';
import { adviseScope, type ScopeInput } from '../jobs/scope.js';
import { stirringRun } from './stirring.js';

describe('a stirring run', () => {
  it('is owed by what holds particles up and stands, and by nothing else', () => {
    const show = stirringRun('2026-03-10', 'show', 0);
    expect(show?.dueOn).toBe('2026-03-13');
    expect(show && reasonWords(show.reason)).toBe(
      'show (pearl, metallic) at rest since 10 Mar 2026: every 3 days the pump alone, until all of it moves',
    );
    expect(stirringRun('2026-03-10', 'opaque', 0.5)?.dueOn).toBe('2026-03-24');
    expect(stirringRun('2026-03-10', 'opaque', 1)).toBeNull();
    // nobody said how much it runs: it is taken to run
    expect(stirringRun('2026-03-10', 'show', null)).toBeNull();
    expect(stirringRun('2026-03-10', 'clear', 0)).toBeNull();
  });
});

describe('stages of fallout', () => {
  const seen = [
    { stage: 'comes-back', on: '2026-04-01' },
    { stage: 'stays', on: '2026-05-01' },
    { stage: 'stays', on: '2026-05-20' },
    { stage: 'bits', on: '2026-06-10' },
  ] as const;

  it('count from the fill on, the heaviest from the day on which it was seen first', () => {
    expect(stageSince(seen, '2026-03-01')).toEqual({ stage: 'stays', on: '2026-05-01' });
    expect(stageSince(seen, '2026-05-25')).toEqual({ stage: 'bits', on: '2026-06-10' });
    expect(stageSince(seen, '2026-06-11')).toBeNull();
    expect(stageSince(seen.slice(0, 1), '2026-04-01')).toEqual(seen[0]);
  });

  it('weigh in the advice as the sign of today would, one that was ticked as well only once', () => {
    const input: ScopeInput = { coolantClass: 'opaque', ageDays: 40, lifeMonths: 3, flowRatio: 1, risenK: 0, signs: [], sameCoolantFollows: true, dueSoon: null }; // prettier-ignore
    expect(adviseScope(input).kind).toBe('closed-loop');
    expect(adviseScope({ ...input, fallout: 'comes-back' }).kind).toBe('drain-refill');
    expect(adviseScope({ ...input, fallout: 'stays' }).kind).toBe('strip-clean');
    expect(adviseScope({ ...input, fallout: 'stays', signs: ['layer'] }).reasons).toHaveLength(1);
    expect(adviseScope({ ...input, signs: ['bits'] })).toMatchObject({ kind: 'strip-clean', reasons: [expect.stringContaining('bits after a refill')] }); // prettier-ignore
  });
});
