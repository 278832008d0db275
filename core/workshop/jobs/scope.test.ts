import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { JOB_KINDS } from '../job-kinds/kinds.js';
import { adviseScope, SIGN_KEYS, signsAt, type ScopeInput } from './scope.js';

const calm: ScopeInput = {
  coolantClass: 'clear',
  ageDays: 100,
  lifeMonths: 12,
  flowRatio: 1,
  risenK: 0,
  signs: [],
  sameCoolantFollows: true,
  dueSoon: null,
};
const advise = (change: Partial<ScopeInput>) => adviseScope({ ...calm, ...change });

describe('scope advice', () => {
  it('leaves a loop closed that gives no reason to open it', () => {
    expect(advise({}).kind).toBe('closed-loop');
    expect(advise({ signs: ['dust', 'slow-creep'] }).kind).toBe('closed-loop');
  });

  it('drains and refills what is only old, and flushes where another coolant or particles are the matter', () => {
    expect(advise({ ageDays: 400 }).kind).toBe('drain-refill');
    expect(advise({ ageDays: 400, sameCoolantFollows: false }).kind).toBe('flush-refill');
    expect(advise({ otherAsked: true, sameCoolantFollows: false })).toMatchObject({ kind: 'flush-refill', reasons: [expect.stringContaining('another coolant follows')] }); // prettier-ignore
    expect(advise({ ageDays: 100, lifeMonths: 3, coolantClass: 'opaque' }).kind).toBe('flush-refill');
  });

  it('counts a date that comes within a month or in the hot weeks: it is changed while it is here', () => {
    expect(advise({ dueSoon: 'month' })).toMatchObject({ kind: 'drain-refill', reasons: [expect.stringContaining('within a month')] });
    expect(advise({ dueSoon: 'hot', coolantClass: 'opaque' }).kind).toBe('flush-refill');
    // what is over already says so by its own age
    expect(advise({ dueSoon: 'over', ageDays: 400 }).reasons).toEqual([expect.stringContaining('months are over')]);
  });

  it('flushes what left the colour of its sample on a photograph; a little off is no reason', () => {
    expect(advise({ colour: { deltaE: 6.2 } })).toMatchObject({ kind: 'flush-refill', reasons: [expect.stringContaining('ΔE₀₀ 6.2')] });
    expect(advise({ colour: { deltaE: 4 } }).kind).toBe('closed-loop');
    // seen by eye and by the picture: said once
    expect(advise({ colour: { deltaE: 9 }, signs: ['colour-differs'] }).reasons).toHaveLength(1);
  });

  it('takes it apart where rinsing does not help, however young it is', () => {
    for (const sign of ['layer', 'deposit', 'flakes', 'instant-hot'] as const) expect(advise({ signs: [sign] }).kind).toBe('strip-clean');
    expect(advise({ flowRatio: 0.6 }).kind).toBe('strip-clean');
    expect(advise({ flowRatio: 0.8 }).kind).toBe('flush-refill');
  });

  it('sends what dust or old paste explains there first, and measures again before anything is opened', () => {
    expect(advise({ risenK: 9 }).kind).toBe('flush-refill');
    expect(advise({ risenK: 9, signs: ['dust'] })).toMatchObject({ kind: 'closed-loop', reasons: expect.arrayContaining([expect.stringContaining('measured again')]) }); // prettier-ignore
    // a flow that fell is no dust
    expect(advise({ risenK: 9, signs: ['dust'], flowRatio: 0.8 }).kind).toBe('flush-refill');
    expect(advise({ signs: ['instant-hot', 'paste-old'] }).kind).toBe('closed-loop');
    expect(advise({ signs: ['instant-hot', 'paste-old'], flowRatio: null }).kind).toBe('strip-clean');
  });

  it('flushes no loop for a milky tube alone, and asks for a look at the liquid', () => {
    expect(advise({ signs: ['tube-milky'] })).toMatchObject({ kind: 'closed-loop', unknown: ['the liquid seen in glass or acrylic'] });
    expect(advise({ signs: ['tube-milky', 'smell'] })).toMatchObject({ kind: 'flush-refill', unknown: [] });
  });

  it('puts a leak before everything', () => {
    expect(advise({ signs: ['leak', 'layer'] })).toMatchObject({ kind: 'leak-repair', lighter: { kind: 'top-up' } });
  });

  it('says what the lighter job would leave and why the heavier is not needed', () => {
    const advice = advise({ signs: ['cloud'] });
    expect(advice.lighter).toMatchObject({ kind: 'drain-refill' });
    expect(advice.lighter?.words).toContain('cloud');
    expect(advice.heavier?.words).toContain('flow is as it was');
  });

  it('names what nobody measured instead of guessing', () => {
    expect(advise({ flowRatio: null, risenK: null, ageDays: null }).unknown).toHaveLength(3);
    expect(advise({ flowRatio: null, signs: ['cloud'] }).heavier?.words).toContain('was not compared');
  });

  it('never gets lighter when one more sign is seen, but for what explains the heat', () => {
    const rung = (signs: ScopeInput['signs']): number => JOB_KINDS[advise({ signs }).kind].rung ?? 9;
    fc.assert(
      fc.property(
        fc.subarray(SIGN_KEYS),
        fc.constantFrom(...SIGN_KEYS.filter((sign) => sign !== 'dust' && sign !== 'paste-old')),
        (signs, more) => {
          expect(rung([...new Set([...signs, more])])).toBeGreaterThanOrEqual(rung(signs));
        },
      ),
    );
  });
});

describe('the signs', () => {
  it('stand in one place each, so that each can be noticed and none twice', () => {
    expect(Object.values(signsAt).flat().toSorted()).toEqual(SIGN_KEYS.toSorted());
  });
});
