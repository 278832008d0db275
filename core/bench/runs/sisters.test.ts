import { describe, expect, it } from 'vitest';
import { procedureOf, TestRun } from '../../../tests/bench/testRun.js';
import { sistersAsked, sistersOfLeak } from './sisters.js';

const mended = (at: string, cause: string): TestRun => {
  const run = new TestRun().upTo('dry');
  run.say({ type: 'leak', at, when: 'under-pressure', amount: 'drip', text: '' });
  return run.say({ type: 'leak-mended', leak: run.state.leaks[0]?.eventId ?? '', cause, fix: 'shorter screws' });
};
const names = (run: TestRun): string[] => run.state.leaks.flatMap((leak) => sistersOfLeak(run.procedure, leak).map(({ id }) => id));

describe('places that share the cause of a leak', () => {
  it('are the other radiators where a screw went through a tube: screws came out of one bag', () => {
    expect(names(mended('roof', 'screw-through-tube'))).toEqual(['front']);
  });

  it('are the other tubes where an end was not cut square', () => {
    const run = mended('roof', 'cut-not-square');
    expect(names(run)).toEqual(run.procedure.facts?.joints.map(({ id }) => id));
  });

  it('are none where the cause is the place’s own', () => {
    expect(names(mended('roof', 'cracked-part'))).toEqual([]);
  });

  it('keep a run from its sign-off until somebody has looked, and again when it is mended anew', () => {
    const run = mended('roof', 'screw-through-tube');
    const leak = run.state.leaks[0]?.eventId ?? '';
    expect(sistersAsked(run.procedure, run.state)).toHaveLength(1);
    run.say({ type: 'sisters-seen', leak, text: 'front sound' });
    expect(sistersAsked(run.procedure, run.state)).toHaveLength(0);
    run.say({ type: 'leak-mended', leak, cause: 'screw-through-tube', fix: 'again' });
    expect(sistersAsked(run.procedure, run.state)).toHaveLength(1);
  });
});

describe('parts out of one bag', () => {
  const screws = { make: 'M3 screws', lot: 'S7' };
  const fitted = [
    { item: 'roof', ...screws },
    { item: 'front', ...screws },
    { item: 'graphics', make: 'M3 screws', lot: 'S8' },
  ];
  const withBags = (): TestRun => new TestRun({ ...procedureOf(), fitted }).upTo('dry');
  const asked = (run: TestRun) => sistersAsked(run.procedure, run.state).map(({ where, sisters }) => [where, sisters.map(({ id }) => id)]);
  const replaced = (run: TestRun, item: string): TestRun =>
    run.say({ type: 'swapped', step: 'dry', item, action: 'replaced', text: 'a new one', heldMl: 0 });

  it('are asked for when one of them is exchanged, and no longer once somebody has looked', () => {
    const run = replaced(withBags(), 'roof');
    expect(asked(run)).toEqual([['roof', ['front']]]);
    run.say({ type: 'sisters-seen', leak: run.events.at(-1)?.id ?? '', text: '' });
    expect(asked(run)).toEqual([]);
  });

  it('are none where the part’s bag is not on record, or nothing else came out of it', () => {
    expect(asked(replaced(withBags(), 'graphics'))).toEqual([]);
    expect(asked(replaced(withBags(), 'processor'))).toEqual([]);
  });

  it('no longer hold what was taken out of the loop meanwhile', () => {
    const run = replaced(replaced(withBags(), 'front'), 'roof');
    // the front one asks for the roof, which is out by now; the roof finds nothing of its bag any more
    expect(asked(run)).toEqual([]);
  });

  it('are named first where a leak’s cause lies in what came out of a bag', () => {
    const run = withBags().say({ type: 'leak', at: 'roof', when: 'under-pressure', amount: 'drip', text: '' });
    run.say({ type: 'leak-mended', leak: run.state.leaks[0]?.eventId ?? '', cause: 'fitting-ring', fix: 'a new ring' });
    expect(sistersAsked(run.procedure, run.state)[0]?.sisters).toEqual([expect.objectContaining({ id: 'front', bag: screws })]);
  });

  it('count what this run took from the shelf for a place', () => {
    const run = withBags();
    for (const item of ['processor', 'graphics'])
      run.say({
        type: 'used',
        step: 'dry',
        itemId: '00000000-0000-4000-8000-000000000001',
        itemName: 'O-ring, lot R1',
        count: 2,
        item,
        bag: { make: 'O-ring', lot: 'R1' },
      });
    expect(asked(replaced(run, 'processor'))).toEqual([['processor', ['graphics']]]);
  });
});

describe('a seal that was borrowed', () => {
  it('leaves its place open: neither air nor liquid nor pump before it has one again', () => {
    const run = new TestRun().upTo('dry');
    const from = run.procedure.facts?.joints[1]?.id ?? '';
    run.say({ type: 'seal-borrowed', from, text: 'to the plate' });
    expect(run.try({ type: 'dry-reading', gaugeKpa: 50, tempC: 21 })?.message).toContain('gave its seal away');
    expect(run.try({ type: 'pump', on: true })?.code).toBe('interlock');
    const borrowed = run.events.at(-1)?.id ?? '';
    run.say({ type: 'seal-fitted', borrowed, text: 'a new one' });
    expect(run.try({ type: 'seal-fitted', borrowed, text: 'twice' })?.fact.why).toBe('unknown-seal');
    expect(run.try({ type: 'dry-reading', gaugeKpa: 50, tempC: 21 })).toBeNull();
  });
});
