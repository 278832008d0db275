import { sealPlaces } from '../../machine/seals/places.js';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { buildProcedure } from './buildProcedure.js';
import { isEach, type ProcedureTemplate, type StepTemplate } from '../runs/template.js';
import { broughtMl } from '../runs/state.js';
import { lackWords, procedureOf, TestRun } from '../../../tests/bench/testRun.js';
import { describe, expect, it } from 'vitest';
import { readInput } from '../../base/checking/input.js';
import { compareTemplates } from './compareTemplates.js';
import { DEFAULT_SCHOOLS, type LeakSchool } from '../../physics/leak-testing/schools.js';
import { STANDARD_TEMPLATE } from '../commissioning/standardTemplate.js';
import { refuseTemplate, templateCreateSchema } from './templateSchema.js';

const edit = (stepId: string, change: (step: StepTemplate) => StepTemplate): ProcedureTemplate => ({
  steps: STANDARD_TEMPLATE.steps.map((step) => (step.id === stepId ? change(step) : step)),
});
const OWN_STEP: StepTemplate = { id: 'cables', kind: 'checks', title: 'Dress the cables', lead: 'After the leak test.', cautions: [], timers: [], checks: [{ id: 'ties', text: 'No tie round a run' }] }; // prettier-ignore
const after = (stepId: string, added: StepTemplate): ProcedureTemplate => ({
  steps: STANDARD_TEMPLATE.steps.flatMap((step) => (step.id === stepId ? [step, added] : [step])),
});
const built = (template: ProcedureTemplate, leak: LeakSchool = 'dry-then-wet') =>
  buildProcedure({ loop: usualLoop(), schools: { ...DEFAULT_SCHOOLS, leak }, order: null, coolantName: null, template });

describe('a procedure as data', () => {
  it('is the standard one where the workshop has none of its own', () => {
    const { template: _template, ...plain } = {
      loop: usualLoop(),
      schools: DEFAULT_SCHOOLS,
      order: null,
      coolantName: null,
      template: null,
    };
    expect(built(STANDARD_TEMPLATE)).toEqual(buildProcedure(plain));
    expect(refuseTemplate(STANDARD_TEMPLATE)).toBeNull();
    expect(readInput(templateCreateSchema, { template: STANDARD_TEMPLATE, note: 'as it is', from: 0 })).toBeDefined();
  });

  it('carries the lead’s own words and checks into the next run, with the loop’s figures in their places', () => {
    const own = edit('kit', (step) => ({ ...step, lead: 'For {joints} joints.', checks: [...step.checks, { id: 'lamp', text: 'Lamp for the back of the case', group: 'Bench' }] })); // prettier-ignore
    const kit = built(own).steps.find(({ id }) => id === 'kit');
    expect(kit?.lead).toBe(`For ${2 * usualLoop().tubes.length} joints.`);
    expect(kit?.checks.at(-1)?.text).toBe('Lamp for the back of the case');
  });

  it('may have steps of its own, which lead the run like the others', () => {
    const procedure = built(after('wet', OWN_STEP));
    const ids = procedure.steps.map(({ id }) => id);
    expect(ids.indexOf('cables')).toBe(ids.indexOf('wet') + 1);
    const run = new TestRun(procedure);
    expect(lackWords(procedure, run.state, 'cables', run.nowMs)).toEqual(['1 check open']);
  });

  const without = (stepId: string): ProcedureTemplate => ({ steps: STANDARD_TEMPLATE.steps.filter(({ id }) => id !== stepId) });
  it.each<[string, ProcedureTemplate, RegExp]>([
    ['a step that protects', without('isolate'), /"Only the pump on power" protects/],
    [
      'a list that protects',
      edit('isolate', (step) => ({ ...step, checks: step.checks.filter((item) => !isEach(item)) })),
      /must keep every connector/,
    ],
    [
      'a check before power',
      edit('power', (step) => ({ ...step, checks: step.checks.filter((item) => isEach(item) || item.id !== 'supply-off-again') })),
      /must keep "Supply off/,
    ],
    [
      'an unknown place in a text',
      edit('fill', (step) => ({ ...step, lead: 'Pour {litres}.' })),
      /"\{litres\}" in "Fill" stands for nothing/,
    ],
    ['two steps of one name', after('kit', STANDARD_TEMPLATE.steps[0] as StepTemplate), /two steps are called "kit"/],
    ['a sign-off that is not last', { steps: [...STANDARD_TEMPLATE.steps, OWN_STEP] }, /sign-off is the last/],
    [
      'another order',
      { steps: [STANDARD_TEMPLATE.steps[1], STANDARD_TEMPLATE.steps[0], ...STANDARD_TEMPLATE.steps.slice(2)] as StepTemplate[] },
      /comes too late/,
    ],
    ['an own step that measures', after('kit', { ...OWN_STEP, kind: 'bleed' }), /can only hold checks/],
  ])('is refused without %s', (_name, template, words) => {
    expect(refuseTemplate(template)).toMatch(words);
    expect(() => readInput(templateCreateSchema, { template, note: 'trial', from: 0 })).toThrow();
  });

  it('may leave out what only a workshop decides: flushing, bleeding by cycles, the baseline', () => {
    for (const id of ['flush', 'bleed', 'baseline', 'kit']) expect(refuseTemplate(without(id)), id).toBeNull();
  });
});

describe('versions compared', () => {
  it('say what was added, removed and worded otherwise, and nothing of what stayed', () => {
    const next = after('wet', OWN_STEP);
    const changed = {
      steps: next.steps.filter(({ id }) => id !== 'flush').map((step) => (step.id === 'fill' ? { ...step, lead: 'Slowly.' } : step)),
    };
    expect(compareTemplates(STANDARD_TEMPLATE, STANDARD_TEMPLATE)).toEqual([]);
    expect(compareTemplates(STANDARD_TEMPLATE, changed)).toEqual([
      { step: 'Flush the new parts', kind: 'removed', what: 'step', before: 'Flush the new parts', after: null },
      {
        step: 'Fill',
        kind: 'changed',
        what: 'lead',
        before: STANDARD_TEMPLATE.steps.find(({ id }) => id === 'fill')?.lead,
        after: 'Slowly.',
      },
      { step: 'Dress the cables', kind: 'added', what: 'step', before: null, after: 'Dress the cables' },
    ]);
  });

  it('read the other way round where they are swapped', () => {
    const next = edit('kit', (step) => ({ ...step, cautions: step.cautions.slice(1) }));
    const [one] = compareTemplates(STANDARD_TEMPLATE, next);
    const [other] = compareTemplates(next, STANDARD_TEMPLATE);
    expect([one?.kind, one?.before]).toEqual(['removed', other?.after]);
    expect(other?.kind).toBe('added');
  });
});

describe('schools for special cases', () => {
  it('test parts on their own first, and count what stays inside as already filled', () => {
    const run = new TestRun(procedureOf({ leak: 'part-first' })).upTo('parts');
    expect(run.procedure.steps.map(({ id }) => id)).not.toContain('dry');
    expect(lackWords(run.procedure, run.state, 'parts', run.nowMs)).toEqual([
      '6 checks open, 1 of them before power',
      'timer not started: pump and reservoir alone, pump running',
      'no part tested yet',
    ]);
    // the pump is not among what is tested here: nobody ticks what was not done
    for (const { id } of run.procedure.steps.find(({ id: step }) => step === 'parts')?.checks ?? [])
      run.say({ type: 'check', step: 'parts', check: id, mark: 'not-needed', reason: 'only the radiator came used' });
    run.say({ type: 'part-test', part: 'front', tight: false, how: 'ten minutes with coolant', leftMl: 0 });
    expect(lackWords(run.procedure, run.state, 'parts', run.nowMs)[0]).toContain('front leaked');
    run.say({ type: 'part-test', part: 'front', tight: true, how: 'new one, ten minutes', leftMl: 120 });
    expect(lackWords(run.procedure, run.state, 'parts', run.nowMs)).toEqual([]);
    expect(broughtMl(run.state)).toBe(120);
  });

  it('look only at the joints that were opened, and put back only what left', () => {
    const loop = usualLoop();
    const joint = loop.tubes[3]?.id ?? '';
    const procedure = buildProcedure({ loop, schools: { ...DEFAULT_SCHOOLS, leak: 'opened-joints', wet: 'ten-minutes' }, order: null, coolantName: null, opened: { joints: [joint], lostMl: 90 } }); // prettier-ignore
    const texts = (step: string): string[] => procedure.steps.find(({ id }) => id === step)?.checks.map(({ id }) => id) ?? [];
    expect(texts('wet').filter((id) => id.startsWith('dry-joint'))).toEqual([`dry-joint:${joint}`]);
    expect(texts('close').filter((id) => id.startsWith('joint:'))).toEqual([`joint:${joint}`]);
    expect(procedure.steps.map(({ id }) => id)).not.toContain('flush');
    expect(procedure.fillPlan.total.volumeMl).toBe(90);
    const whole = buildProcedure({ loop, schools: DEFAULT_SCHOOLS, order: null, coolantName: null });
    // a towel of its own lay under every plug, cap and base as well
    expect(whole.steps.find(({ id }) => id === 'power')?.checks.filter(({ id }) => id.startsWith('towel:')).length).toBe(
      loop.tubes.length + sealPlaces(loop).length,
    );
    // every towel still comes out, whatever was opened
    expect(texts('power').filter((id) => id.startsWith('towel:'))).toHaveLength(loop.tubes.length);
  });
});
