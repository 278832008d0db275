import { describe, expect, it } from 'vitest';
import { FIRST_BENCH, FIRST_STEPS, firstWeek, type WorkshopSoFar } from './firstWeek.js';

const empty: WorkshopSoFar = {
  benches: [FIRST_BENCH],
  people: 1,
  hands: 1,
  withHours: 0,
  coolants: 0,
  machines: 0,
  hasAddress: false,
  reckonsPrices: false,
};
const missing = (so: WorkshopSoFar, passed: Parameters<typeof firstWeek>[1] = []): string[] =>
  firstWeek(so, passed).flatMap(({ step, state }) => (state === 'missing' ? [step] : []));

describe('the first week', () => {
  it('of an empty workshop lacks everything, in order', () => {
    expect(missing(empty)).toEqual(FIRST_STEPS);
  });

  it('is over when all of it is there', () => {
    expect(
      missing({
        benches: ['Window bench'],
        people: 2,
        hands: 2,
        withHours: 2,
        coolants: 1,
        machines: 1,
        hasAddress: true,
        reckonsPrices: true,
      }),
    ).toEqual([]);
  });

  it('takes a step as said that needs nothing here, and as done once it is', () => {
    expect(missing(empty, ['people', 'prices'])).not.toContain('people');
    expect(firstWeek({ ...empty, people: 3 }, ['people'])[1]?.state).toBe('done');
  });

  it('asks for hours again when somebody new has none', () => {
    expect(missing({ ...empty, hands: 2, withHours: 1 })).toContain('hours');
    expect(missing({ ...empty, hands: 2, withHours: 2 })).not.toContain('hours');
  });
});
