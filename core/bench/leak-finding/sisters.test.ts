import { describe, expect, it } from 'vitest';
import { TestRun } from '../../../tests/bench/testRun.js';
import { sistersOfLeak, unseenSisters } from './sisters.js';

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
    expect(unseenSisters(run.procedure, run.state.leaks)).toHaveLength(1);
    run.say({ type: 'sisters-seen', leak, text: 'front sound' });
    expect(unseenSisters(run.procedure, run.state.leaks)).toHaveLength(0);
    run.say({ type: 'leak-mended', leak, cause: 'screw-through-tube', fix: 'again' });
    expect(unseenSisters(run.procedure, run.state.leaks)).toHaveLength(1);
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
