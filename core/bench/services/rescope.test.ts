import { describe, expect, it } from 'vitest';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { DEFAULT_SCHOOLS } from '../../physics/leak-testing/schools.js';
import { TestRun } from '../../../tests/bench/testRun.js';
import { JOB_KIND_KEYS, type JobKind } from '../../workshop/job-kinds/kinds.js';
import { buildProcedure } from '../procedures/buildProcedure.js';
import type { Procedure } from '../runs/procedure.js';
import { cannotBecome, stepsAfterRescope } from './rescope.js';
import { serviceFacts } from './serviceFacts.js';

const made = new Map<JobKind, Procedure>();
function procedureOf(kind: JobKind): Procedure {
  const loop = usualLoop();
  const known =
    made.get(kind) ??
    buildProcedure({
      loop,
      schools: { ...DEFAULT_SCHOOLS, leak: 'dry-then-wet', wet: 'ten-minutes' },
      order: { bottles: 1 },
      coolantName: 'Plain Clear',
      service: serviceFacts({ loop, kind, jobId: 'job', filled: true, part: null, old: { productId: 'plain', name: 'Plain' }, mixes: [] }),
    });
  made.set(kind, known);
  return known;
}
/** A run of a kind with its first steps closed, whatever they ask for. */
function led(kind: JobKind, upTo: string): TestRun {
  const run = new TestRun(procedureOf(kind));
  for (const { id } of run.procedure.steps) {
    if (id === upTo) break;
    if (['isolate', 'off'].includes(id)) run.finish(id);
    else run.tick(id).say({ type: 'deviation', step: id, reason: 'for the test' });
  }
  return run;
}
const closed = (kind: JobKind, ...steps: string[]): TestRun => {
  const run = led(kind, steps[0] as string);
  for (const id of steps) run.finish(id);
  return run;
};
const after = (run: TestRun, kind: JobKind): string[] =>
  stepsAfterRescope(run.procedure, procedureOf(kind), kind, run.state).map(({ id }) => id);

describe('a job that changes its kind in the middle', () => {
  it('keeps what was done, whatever it becomes: nothing has no place', () => {
    const run = led('leak-repair', 'drain');
    for (const kind of JOB_KIND_KEYS)
      if (kind !== 'leak-repair' && cannotBecome(run.procedure, run.state, kind) === null) {
        const steps = after(run, kind);
        for (const id of ['kit', 'isolate', 'find']) expect(steps, kind).toContain(id);
        expect(new Set(steps).size, kind).toBe(steps.length);
      }
  });

  it('brings back what was pulled, although a top-up alone pulls nothing', () => {
    const run = closed('drain-refill', 'isolate');
    expect(procedureOf('top-up').steps.map(({ kind }) => kind)).not.toContain('power');
    const steps = after(run, 'top-up');
    expect(steps.indexOf('power')).toBeGreaterThan(steps.indexOf('fill'));
    expect(steps.at(-1)).toBe('sign-off');
  });

  it('brings back by name what was pulled, although work with the loop closed pulls nothing', () => {
    const steps = stepsAfterRescope(closed('drain-refill', 'isolate').procedure, procedureOf('closed-loop'), 'closed-loop', closed('drain-refill', 'isolate').state); // prettier-ignore
    const power = steps.filter(({ kind }) => kind === 'power');
    expect(power.map(({ id }) => id)).toEqual(['power']);
    expect(power[0]?.checks.some(({ id }) => id.startsWith('back:'))).toBe(true);
  });

  it('still pulls every load before a pump runs alone, although the machine was off the wall', () => {
    const run = closed('closed-loop', 'off');
    const steps = after(run, 'drain-refill');
    expect(steps.indexOf('off')).toBeLessThan(steps.indexOf('isolate'));
    expect(steps.indexOf('isolate')).toBeLessThan(steps.indexOf('fill'));
    expect(steps).not.toContain('on');
    expect(run.state.steps.some(({ id }) => id === 'isolate')).toBe(false);
    // a top-up alone does not think of the wall
    expect(after(run, 'top-up')).toContain('on');
  });

  it('closes and tests a loop that was taken apart, although a flush opens nothing', () => {
    const run = led('strip-clean', 'drain').say({ type: 'drained', step: 'drain', volumeMl: 600, how: 'jug', wasteId: null });
    run.tick('drain').say({ type: 'deviation', step: 'drain', reason: 'for the test' });
    run.finish('strip');
    const steps = after(run, 'flush-refill');
    expect(steps.slice(steps.indexOf('strip'))).toEqual(expect.arrayContaining(['close', 'dry', 'fill', 'wet', 'bleed', 'power']));
    expect(steps.indexOf('close')).toBeLessThan(steps.indexOf('fill'));
    expect(steps.indexOf('dry')).toBeLessThan(steps.indexOf('fill'));
  });

  it('does not become less than what was let out asks for', () => {
    const run = led('flush-refill', 'drain').say({ type: 'drained', step: 'drain', volumeMl: 600, how: 'jug', wasteId: null });
    expect(cannotBecome(run.procedure, run.state, 'closed-loop')).toEqual({ why: 'was-drained' });
    expect(cannotBecome(run.procedure, run.state, 'top-up')).toEqual({ why: 'was-drained' });
    expect(cannotBecome(run.procedure, run.state, 'drain-refill')).toBeNull();
    expect(cannotBecome(run.procedure, run.state, 'retirement')).toBeNull();
  });
});
