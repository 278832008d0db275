// @vitest-environment happy-dom
import { buildProcedure } from '@core/bench/procedures/buildProcedure.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { TestRun } from '../../../tests/bench/testRun.js';
import { usualLoop } from '@core/machine/catalogue/testLoops.js';
import { describe, expect, it } from 'vitest';
import { type Procedure } from '@core/bench/runs/procedure.js';
import { DEFAULT_SCHOOLS } from '@core/physics/leak-testing/schools.js';
import { adviseScope, type ScopeInput } from '@core/workshop/jobs/scope.js';
import type { JobKind } from '@core/workshop/job-kinds/kinds.js';
import { serviceFacts } from '@core/bench/services/serviceFacts.js';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import CleanStep from '../../bench/cleaning/CleanStep.vue';
import DrainStep from '../../bench/draining/DrainStep.vue';
import RinseStep from '../../bench/flushing/RinseStep.vue';
import InspectStep from '../../bench/inspection/InspectStep.vue';
import ScopeLadder from './ScopeLadder.vue';
import SwapStep from '../../bench/services/SwapStep.vue';

const procedureOf = (kind: JobKind): Procedure => {
  const loop = usualLoop();
  return buildProcedure({
    loop,
    schools: { ...DEFAULT_SCHOOLS, leak: 'wet-only', wet: 'ten-minutes' },
    order: null,
    coolantName: null,
    service: serviceFacts({ loop, kind, jobId: 'j', filled: true, part: null, old: null, mixes: [] }),
  });
};
/** A service that stands at a step, everything before it passed with a reason or ticked. */
function standAt(kind: JobKind, stepId: string): TestRun {
  const run = new TestRun(procedureOf(kind));
  for (const { id } of run.procedure.steps) {
    if (id === stepId) break;
    run.tick(id);
    if (id === 'drain') run.say({ type: 'drained', step: 'drain', volumeMl: 600, how: 'jug', wasteId: null });
    if (run.try({ type: 'step-done', step: id })) run.say({ type: 'deviation', step: id, reason: 'for this test' });
  }
  return run;
}
const sent = (screen: ReturnType<typeof mountScreen>): RunEventBody[] =>
  (screen.emitted('send') ?? []).map(([body]) => body as RunEventBody);
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

describe('the ladder of scopes', () => {
  it('marks the lightest job that is safe and says what its neighbours leave or cost', () => {
    const advice = adviseScope({ ...calm, signs: ['cloud'] });
    const screen = mountScreen(ScopeLadder, { props: { modelValue: 'flush-refill', advice, file: usualLoop() } });
    expect(screen.find('.advised').text()).toContain('flush and refill');
    expect(wordsOf(screen)).toContain('Would leave it as it is: cloud');
  });

  it('lets a hand choose another', async () => {
    const screen = mountScreen(ScopeLadder, { props: { modelValue: 'closed-loop', advice: adviseScope(calm), file: usualLoop() } });
    await screen.findAll('li button')[0]?.trigger('click');
    expect(screen.emitted('update:modelValue')).toEqual([['strip-clean']]);
  });
});

describe('the drain on screen', () => {
  it('says what should come now, takes the jug, and then says what is still inside', async () => {
    fakeServer(() => ({ status: 200, body: { containers: [] } }));
    const run = standAt('drain-refill', 'drain');
    const screen = mountScreen(DrainStep, { props: { procedure: run.procedure, state: run.state, colour: '#7fb8c9', locked: false } });
    expect(wordsOf(screen)).toMatch(/\d+ mL should come now/);
    await screen.find('button.link').trigger('click');
    await screen.find('form.out input').setValue('420');
    await screen.find('form.out').trigger('submit');
    expect(sent(screen)[0]).toMatchObject({ type: 'drained', volumeMl: 420, wasteId: null });
    for (const { drainedMl } of run.procedure.service?.stands ?? [])
      run.say({ type: 'drained', step: 'drain', volumeMl: Math.round(drainedMl), how: 'jug', wasteId: null });
    await screen.setProps({ state: run.state });
    expect(wordsOf(screen)).toContain('The book balances');
  });

  it('does not take an empty jug', async () => {
    fakeServer(() => ({ status: 200, body: { containers: [] } }));
    const run = standAt('drain-refill', 'drain');
    const screen = mountScreen(DrainStep, { props: { procedure: run.procedure, state: run.state, colour: null, locked: false } });
    // a reservoir whose level nobody can see is drained all the same
    await screen.find('button.link').trigger('click');
    await screen.find('form.out').trigger('submit');
    expect(wordsOf(screen)).toContain('Enter what stands in the jug, in mL.');
    expect(sent(screen)).toEqual([]);
  });

  it('asks for the level before anything is opened, where nobody has looked since the last run', async () => {
    fakeServer(() => ({ status: 200, body: { containers: [] } }));
    const run = standAt('drain-refill', 'drain');
    const screen = mountScreen(DrainStep, { props: { procedure: run.procedure, state: run.state, colour: null, locked: false } });
    expect(wordsOf(screen)).toContain('How high does it stand?');
    await screen.find('form.level input').setValue('180');
    await screen.find('form.level').trigger('submit');
    expect(sent(screen)[0]).toEqual({ type: 'level', levelMl: 180 });
    run.say({ type: 'level', levelMl: 180 });
    await screen.setProps({ state: run.state });
    expect(wordsOf(screen)).not.toContain('Before anything is opened');
  });
});

describe('rinses on screen', () => {
  it('ask for what went in, then for what came out, and draw how thin the old liquid is', async () => {
    fakeServer(() => ({ status: 200, body: { containers: [] } }));
    const run = standAt('flush-refill', 'rinse');
    const screen = mountScreen(RinseStep, { props: { procedure: run.procedure, state: run.state, locked: false } });
    // so much has room now, by the book; more is asked about before it is taken
    const most = Number(screen.find('.fill-order').attributes('data-most'));
    expect(most).toBeGreaterThan(50);
    await screen.find('input').setValue(String(most + 200));
    await screen.find('form').trigger('submit');
    expect(sent(screen)).toEqual([]);
    expect(wordsOf(screen)).toContain('more than there was room for');
    await screen.find('input').setValue(String(most));
    await screen.findAll('button').find((each) => each.text() === 'It went in')?.trigger('click'); // prettier-ignore
    expect(sent(screen)[0]).toEqual({ type: 'rinse', step: 'rinse', liquid: 'distilled', volumeMl: most, toMark: true });
    run.say({ type: 'rinse', step: 'rinse', liquid: 'distilled', volumeMl: 600 });
    await screen.setProps({ state: run.state });
    expect(wordsOf(screen)).toContain('Came out');
    expect(screen.find('svg').attributes('aria-label')).toMatch(/Old liquid after each rinse: 100 %, \d/);
  });
});

describe('the inspection sheet on screen', () => {
  it('grades while it is tapped and walks on to the next part', async () => {
    const run = standAt('strip-clean', 'inspect');
    const screen = mountScreen(InspectStep, {
      props: { procedure: run.procedure, state: run.state, systemId: 's', jobId: 'j', locked: false },
    });
    const layer = screen.findAll('button').find((button) => button.text() === 'layer');
    await layer?.trigger('click');
    expect(wordsOf(screen)).toContain('clean again: a layer');
    await screen.find('form').trigger('submit');
    const [entry] = sent(screen);
    expect(entry).toMatchObject({ type: 'inspected', item: run.procedure.service?.items[0]?.id, findings: { deposit: 'layer' } });
  });
});

describe('a soak on screen', () => {
  it('wants the cleaner and its longest time, then counts it down', async () => {
    const run = standAt('strip-clean', 'clean');
    const screen = mountScreen(CleanStep, { props: { procedure: run.procedure, state: run.state, locked: false } });
    await screen.find('form').trigger('submit');
    expect(wordsOf(screen)).toContain('Name the cleaner');
    run.say({ type: 'soak', step: 'clean', on: true, cleaner: 'citric bath', mostMinutes: 30 });
    await screen.setProps({ state: run.state });
    expect(wordsOf(screen)).toContain('citric bath is out');
  });
});

describe('what goes out and in', () => {
  it('asks where a part lies that was taken out, and offers what the shelf has', async () => {
    fakeServer(() => ({
      status: 200,
      body: { items: [{ id: '00000000-0000-4000-8000-000000000001', name: 'O-ring', lot: '', unit: 'pcs', count: 4 }] },
    }));
    const run = standAt('part-replacement', 'swap');
    const screen = mountScreen(SwapStep, { props: { procedure: run.procedure, state: run.state, step: 'swap', locked: false } });
    await settle();
    expect(wordsOf(screen)).toContain('From the shelf');
    await screen.find('form').trigger('submit');
    expect(wordsOf(screen)).toContain('Say which part');
    expect(sent(screen)).toEqual([]);
  });
});
