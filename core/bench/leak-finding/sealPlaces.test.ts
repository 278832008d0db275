import { describe, expect, it } from 'vitest';
import { TestRun } from '../../../tests/bench/testRun.js';
import { partOfPlace } from '../../machine/seals/places.js';
import { leakPlaceOf, rankCauses } from './causes.js';
import { ringsRenewedIn } from '../runs/ringsAfter.js';
import { describeEntry } from '../runs/log.js';
import { isInsidePart, isSeal } from '../../machine/seals/places.js';

describe('a plug as a place', () => {
  const run = new TestRun().upTo('fill');
  const seals = run.procedure.facts?.seals ?? [];

  it('is every port without a tube, by its part and port', () => {
    const used = new Set((run.procedure.twin?.loop.tubes ?? []).flatMap(({ from, to }) => [from.join('.'), to.join('.')]));
    const ports = (run.procedure.twin?.loop.components ?? []).flatMap(({ id, ports: own }) => Object.keys(own).map((port) => `${id}.${port}`)); // prettier-ignore
    expect(seals.map(({ id }) => id).filter((id) => !isInsidePart(id))).toEqual(ports.filter((port) => !used.has(port)));
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

describe('a ring inside a part', () => {
  const run = new TestRun().upTo('fill');
  const { components = [] } = run.procedure.twin?.loop ?? {};
  const base = `${components.find(({ kind }) => kind === 'reservoir')?.id}#base`;

  it('is a place of every reservoir, block and radiator, and of a pump that stands alone', () => {
    const kinds = (run.procedure.facts?.seals ?? []).filter(({ id }) => isInsidePart(id)).map(({ id }) => id.split('#')[1]);
    const count = (kind: string): number => components.filter((part) => part.kind === kind).length;
    expect(kinds.filter((kind) => kind === 'gasket')).toHaveLength(count('block'));
    expect(kinds.filter((kind) => kind === 'end')).toHaveLength(count('radiator'));
    expect(kinds.filter((kind) => kind === 'base')).toHaveLength(count('reservoir'));
  });

  it('leaks as its part does, is drawn down like it, and is new once it was mended with one', () => {
    run.say({ type: 'leak', at: base, when: 'first-pour', amount: 'gush', text: '' });
    const kind = components.find(({ id }) => id === partOfPlace(base))?.kind ?? null;
    expect(leakPlaceOf(base, kind)).toBe('reservoir');
    expect(rankCauses({ place: 'reservoir', when: 'first-pour', amount: 'gush' })[0]?.cause).toBe('base-seal');
    run.say({ type: 'leak-mended', leak: run.state.leaks[0]?.eventId ?? '', cause: 'base-seal', fix: 'a new ring, greased' });
    expect(ringsRenewedIn(run.state)).toEqual([base]);
  });

  it('is renewed by a touch, and a place that is none is refused', () => {
    const other = new TestRun().upTo('close');
    const places = (other.procedure.facts?.seals ?? []).filter(({ hasRing }) => hasRing !== false).map(({ id }) => id);
    other.say({ type: 'ring-renewed', step: 'close', places });
    expect(ringsRenewedIn(other.state)).toEqual(places);
    expect(other.try({ type: 'ring-renewed', step: 'close', places: ['roof#keel'] })?.code).toBe('unknown-item');
  });
});
