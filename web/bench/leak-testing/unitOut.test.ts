// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { usualLoop } from '@core/machine/catalogue/testLoops.js';
import { WATER } from '@core/machine/liquids/fluids.js';
import { unitOf, UNIT_SCHOOLS } from '@core/bench/commissioning/testedAlone.js';
import { buildProcedure } from '@core/bench/procedures/buildProcedure.js';
import type { LoopOfSystem } from '@core/workshop/machines/answers.js';
import { TestRun } from '../../../tests/bench/testRun.js';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import LoopActions from '../../workshop/machines/LoopActions.vue';
import UnitOut from './UnitOut.vue';
import UnitTestDialog from './UnitTestDialog.vue';

const found = unitOf(usualLoop(), 'pump', WATER);
if (!found) throw new Error('the usual loop has a unit');
const procedure = buildProcedure({ loop: found.file, unit: found.unit, schools: UNIT_SCHOOLS, order: null, coolantName: null });
const mounted = (run: TestRun) => mountScreen(UnitOut, { props: { procedure, state: run.state, locked: false } });
const sent = (screen: ReturnType<typeof mounted>) => (screen.emitted('send') ?? []).map(([body]) => body);

describe('the end of a unit’s own test', () => {
  it('asks for the jug first, and says what stays inside by the book', async () => {
    const run = new TestRun(procedure).upTo('out');
    const insideMl = run.state.contents.insideMl ?? 0;
    const screen = mounted(run);
    await screen.find('form').trigger('submit');
    expect(wordsOf(screen)).toContain('Enter what stands in the jug');
    await screen.find('input').setValue(String(Math.round(insideMl - 13)));
    await screen.find('form').trigger('submit');
    expect(sent(screen)).toEqual([{ type: 'outflow', way: 'drawn-off', volumeMl: Math.round(insideMl - 13) }]);
    run.say({ type: 'outflow', way: 'drawn-off', volumeMl: insideMl - 13 });
    expect(wordsOf(mounted(run))).toContain('13 mL stay inside');
  });

  it('is told of pump and reservoir at once, the rest with the pump alone', async () => {
    const run = new TestRun(procedure).upTo('out');
    run.say({ type: 'outflow', way: 'drawn-off', volumeMl: (run.state.contents.insideMl ?? 0) - 13 });
    const screen = mounted(run);
    await screen.findAll('input[type="radio"], [role="radio"]')[1]?.trigger('click');
    await screen.findComponent({ name: 'ChoiceRow' }).vm.$emit('update:modelValue', 'leaks');
    await settle();
    await screen.find('form').trigger('submit');
    expect(sent(screen)).toMatchObject([
      { type: 'part-test', part: found.unit.pump, tight: false, leftMl: 13 },
      { type: 'part-test', part: found.unit.reservoir, tight: false, leftMl: 0 },
    ]);
  });
});

describe('where it begins', () => {
  const loop = (by: 'never-filled' | 'units' | 'book'): LoopOfSystem =>
    ({ id: 'l', name: 'Main', runs: [], revision: { file: usualLoop() }, inside: { by, volume: null, shares: null, standing: null } }) as unknown as LoopOfSystem; // prettier-ignore
  const actions = (by: 'never-filled' | 'units' | 'book') =>
    wordsOf(mountScreen(LoopActions, { props: { loop: loop(by), system: { id: 's', state: 'planned' }, buildId: null } }));

  it('is offered as long as its loop was never filled, once more after a first test', () => {
    expect(actions('never-filled')).toContain('Test its unit first');
    expect(actions('units')).toContain('Book its build');
    expect(actions('units')).toContain('Test its unit first');
    expect(actions('book')).not.toContain('Test its unit first');
  });

  it('says what to expect of the unit before it stands on a bench', async () => {
    fakeServer(() => ({ status: 200, body: { benches: [{ id: 'b', name: 'Window bench' }], runs: [] } }));
    mountScreen(UnitTestDialog, { props: { loopId: 'l', systemName: 'Red shelf', file: usualLoop() } });
    await settle();
    expect(document.body.textContent).toMatch(/with a scrap of tube takes\s*\d+ ± \d+ mL/);
  });
});
