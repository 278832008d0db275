import { describe, expect, it } from 'vitest';
import { TestRun } from '../../../tests/bench/testRun.js';
import { sistersOfDoubt } from './sisters.js';

describe('a screw that felt wrong', () => {
  const run = new TestRun().upTo('assemble');
  const radiators = run.procedure.twin?.loop.components.filter(({ kind }) => kind === 'radiator').map(({ id }) => id) ?? [];
  const [one, other] = radiators as [string, string];

  it('puts everything that is screwed like it up for its own test, before any liquid', () => {
    run.say({ type: 'doubt', part: one, text: 'a crack, driving the last screw' });
    expect(sistersOfDoubt(run.procedure, one, run.state).map(({ id }) => id)).toEqual([other]);
    run.say({ type: 'doubt', part: other, text: 'same screws' });
    expect(sistersOfDoubt(run.procedure, one, run.state)).toEqual([]);
  });

  it('says nothing of radiators where a block felt wrong', () => {
    const block = run.procedure.twin?.loop.components.find(({ kind }) => kind === 'block')?.id ?? '';
    expect(sistersOfDoubt(run.procedure, block, run.state)).toEqual([]);
  });

  it('follows the bag where one is on record, whatever got something out of it', () => {
    const bag = { make: 'M3 × 30', lot: 'S7' };
    const fitted = [{ item: one, ...bag }, { item: 'graphics', ...bag }, { item: other, make: 'M3 × 30', lot: 'S8' }]; // prettier-ignore
    const known = { ...run.procedure, fitted };
    expect(sistersOfDoubt(known, one, { ...run.state, doubts: [] }).map(({ id }) => id)).toEqual(['graphics']);
  });
});
