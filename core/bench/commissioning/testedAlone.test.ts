import { describe, expect, it } from 'vitest';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { WATER } from '../../machine/liquids/fluids.js';
import { DEFAULT_SCHOOLS } from '../../physics/leak-testing/schools.js';
import { TestRun } from '../../../tests/bench/testRun.js';
import { buildProcedure } from '../procedures/buildProcedure.js';
import { openFailures } from '../runs/locks.js';
import { holdsLiquid, fillBalance } from '../runs/contents.js';
import type { Procedure } from '../runs/procedure.js';
import { verdictsOf } from '../runs/verdicts.js';
import { entriesFrom, insideAfter, resultOf, unitOf, UNIT_SCHOOLS } from './testedAlone.js';

const loop = usualLoop();
const found = unitOf(loop, 'pump', WATER);
if (!found) throw new Error('the usual loop has a unit');
const { unit, file } = found;
const procedure: Procedure = buildProcedure({ loop: file, unit, schools: UNIT_SCHOOLS, order: null, coolantName: null });

describe('a unit out of its case', () => {
  it('is a loop of its own: its reservoir, its pump and a scrap of tube', () => {
    expect(file.components.map(({ id }) => id)).toEqual([unit.reservoir, unit.pump]);
    expect(file.tubes).toHaveLength(2);
    expect(unitOf(loop, 'cpu', WATER)).toBeNull();
    expect(procedure.wetSeconds).toBe(600);
    expect(procedure.fillPlan.total.volumeMl).toBeLessThan(buildProcedure({ loop, schools: DEFAULT_SCHOOLS, order: null, coolantName: null }).fillPlan.total.volumeMl); // prettier-ignore
  });

  it('has its own power check before the pump, and asks for no coolant', () => {
    const run = new TestRun(procedure).upTo('supply');
    expect(run.try({ type: 'pump', on: true })?.rule).toBe('not-isolated');
    run.tick('supply').say({ type: 'step-done', step: 'supply' });
    expect(run.try({ type: 'pump', on: true })?.rule).toBe('pump-dry');
    run.pourAll().tick('fill');
    expect(run.try({ type: 'step-done', step: 'fill' })).toBeNull();
  });

  it('keeps in its book what was not let out, whatever was typed beside the verdict', () => {
    const run = new TestRun(procedure).upTo('out');
    const insideMl = run.state.contents.insideMl ?? 0;
    run.say({ type: 'outflow', way: 'drawn-off', volumeMl: insideMl - 14 });
    run.say({ type: 'part-test', part: unit.pump, tight: true, how: 'ten minutes', leftMl: 99 });
    expect(resultOf(procedure, run.state)).toMatchObject({ tight: true, leftMl: expect.closeTo(14, 6) });
    expect(verdictsOf(procedure, run.state)).toEqual([expect.objectContaining({ verdict: 'tight', earned: true })]);
  });

  it('may be signed off as one that leaks: that is what was found', () => {
    const run = new TestRun(procedure).upTo('out');
    run.say({ type: 'leak', at: unit.pump, when: 'first-pour', amount: 'drip', text: '' });
    expect(openFailures(procedure, run.state)).toHaveLength(1);
    run.say({ type: 'part-test', part: unit.pump, tight: false, how: 'drop at the base', leftMl: 0 });
    expect(openFailures(procedure, run.state)).toEqual([]);
    expect(verdictsOf(procedure, run.state)).toEqual([{ verdict: 'tight', earned: false, because: 'leak-open' }]);
    expect(resultOf(procedure, run.state)?.tight).toBe(false);
  });
});

describe('what a build takes over', () => {
  const tested = { unit, tight: true, how: 'ten minutes', leftMl: 14 };

  it('is one figure: the loop holds what stayed in its pump', () => {
    expect(insideAfter(loop, WATER, [tested]).insideMl).toBeCloseTo(14, 9);
    expect(insideAfter(loop, WATER, []).insideMl).toBe(0);
  });

  it('is the test with what stayed inside, or a doubt that keeps everything wet out', () => {
    expect(entriesFrom(tested, '3 March', false).map(({ type }) => type)).toEqual(['part-test', 'part-test']);
    const build = new TestRun(buildProcedure({ loop, schools: DEFAULT_SCHOOLS, order: null, coolantName: null }));
    for (const body of entriesFrom({ ...tested, tight: false }, '3 March', false)) build.say(body);
    build.upTo('fill');
    expect(build.try({ type: 'pour', volumeMl: 100 })?.rule).toBe('doubt');
  });

  it('counts what a build that was broken off left inside once', () => {
    const start = insideAfter(loop, WATER, [{ ...tested, leftMl: 60 }]);
    const again = buildProcedure({ loop, schools: DEFAULT_SCHOOLS, order: null, coolantName: null, start });
    const run = new TestRun(again);
    for (const body of entriesFrom(tested, '3 March', true)) run.say(body);
    expect(run.state.contents.insideMl).toBeCloseTo(60, 9);
    expect(fillBalance(again, run.state).pouredMl).toBeCloseTo(60, 9);
    // a valve that is opened now would let it run
    expect(holdsLiquid(again, run.state)).toBe(true);
  });
});
