import { describe, expect, it } from 'vitest';
import { TestRun } from '../../../tests/bench/testRun.js';
import { describeEntry } from '../runs/log.js';
import { isSeal } from './causes.js';

describe('a plug as a place', () => {
  const run = new TestRun().upTo('fill');
  const seals = run.procedure.facts?.seals ?? [];

  it('is every port without a tube, by its part and port', () => {
    const used = new Set((run.procedure.twin?.loop.tubes ?? []).flatMap(({ from, to }) => [from.join('.'), to.join('.')]));
    const ports = (run.procedure.twin?.loop.components ?? []).flatMap(({ id, ports: own }) => Object.keys(own).map((port) => `${id}.${port}`)); // prettier-ignore
    expect(seals.map(({ id }) => id)).toEqual(ports.filter((port) => !used.has(port)));
    expect(seals.every(({ id }) => isSeal(id))).toBe(true);
  });

  it('leaks, stops the fill, is mended, and is looked at in the wet test like any joint', () => {
    const [seal] = seals;
    run.say({ type: 'leak', at: seal?.id ?? '', when: 'first-pour', amount: 'seep', text: 'a wet thread' });
    const last = run.events.at(-1);
    expect(last && describeEntry(run.procedure, last, run.events)).toContain(seal?.name ?? 'no seal');
    expect(run.try({ type: 'pour', volumeMl: 50 })?.rule).toBe('leak-open');
    const leak = run.state.leaks[0]?.eventId ?? '';
    run.say({ type: 'leak-mended', leak, cause: 'fitting-ring', fix: 'a new ring' });
    expect(run.try({ type: 'pour', volumeMl: 50 })?.rule).toBeUndefined();
    const wet = run.procedure.steps.find(({ kind }) => kind === 'wet-run');
    expect(wet?.checks.filter(({ place }) => place === seal?.id).map(({ together }) => together)).toEqual([
      'Dry at every joint, towels dry',
    ]);
    expect(run.try({ type: 'leak', at: 'pump.nowhere', when: 'warm', amount: 'seep', text: '' })?.code).toBe('unknown-item');
  });
});
