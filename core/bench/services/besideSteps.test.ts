import { describe, expect, it } from 'vitest';
import { TestRun } from '../../../tests/bench/testRun.js';
import { BESIDE_KEYS, mayGoBeside } from '../../workshop/jobs/beside.js';
import { JOB_KIND_KEYS, type JobKind } from '../../workshop/job-kinds/kinds.js';
import { describeEntry } from '../runs/log.js';
import { isEach } from '../runs/template.js';
import { BESIDE_STEP, withBeside } from './besideSteps.js';
import { CLOSED_STEP, serviceTemplate } from './templates.js';

const of = (kind: JobKind, works = mayGoBeside(kind)) => withBeside(kind, serviceTemplate(kind), works);
const at = (kind: JobKind, id: string): number => of(kind).steps.findIndex((step) => step.id === id);

describe('works that go along with a job', () => {
  it('leave a job as it is where nothing goes along', () => {
    for (const kind of JOB_KIND_KEYS) expect(of(kind, []), kind).toEqual(serviceTemplate(kind));
  });

  it('are done with the machine off, and before the loop is closed or filled', () => {
    for (const kind of JOB_KIND_KEYS.filter((each) => mayGoBeside(each).length > 0 && each !== 'closed-loop')) {
      const step = at(kind, BESIDE_STEP);
      expect(step, kind).toBeGreaterThan(kind === 'top-up' ? 0 : at(kind, 'isolate'));
      const next = [at(kind, 'close'), at(kind, 'fill')].filter((each) => each >= 0);
      expect(step, kind).toBeLessThan(Math.min(...next));
    }
  });

  it('are no longer "not needed" in the one step of a loop that stays closed', () => {
    const closed = (works: readonly ('paste' | 'fans' | 'plugs')[]) =>
      of('closed-loop', works).steps.find(({ id }) => id === CLOSED_STEP)?.checks ?? [];
    const mayBeLeft = (id: string, works: readonly ('paste' | 'fans' | 'plugs')[]) =>
      closed(works).some((check) => !isEach(check) && check.id === id && check.mayNotApply === true);
    expect(mayBeLeft('paste', ['fans'])).toBe(true);
    expect(mayBeLeft('paste', ['paste'])).toBe(false);
    expect(mayBeLeft('fans', ['fans'])).toBe(false);
    expect(closed(['plugs']).some((check) => isEach(check) && check.each === 'plugs')).toBe(true);
    expect(of('closed-loop').steps).toHaveLength(serviceTemplate('closed-loop').steps.length);
  });

  it('carry what makes the next day of dust and of paste', () => {
    const does = of('partial-drain').steps.find(({ id }) => id === BESIDE_STEP)?.does;
    expect(does).toEqual(['dusts', 'pastes']);
    expect(BESIDE_KEYS.length).toBe(5);
  });

  it('lift a loop out in one piece before anything of it is changed, and not one that is apart', () => {
    const steps = of('loop-change', ['board']).steps.map(({ id }) => id);
    expect(steps.indexOf('lift')).toBeGreaterThan(steps.indexOf('drain'));
    expect(steps.indexOf('lift')).toBe(steps.indexOf('change') - 1);
    expect(steps.indexOf(BESIDE_STEP)).toBe(steps.indexOf('close') - 1);
    const ids = (kind: JobKind, step: string) =>
      of(kind, ['board']).steps.find(({ id }) => id === step)?.checks.flatMap((check) => (isEach(check) ? [] : [check.id])); // prettier-ignore
    // a loop of which nothing is exchanged comes out and goes back in one step
    expect(ids('drain-refill', BESIDE_STEP)).toEqual(['loosened', 'lifted', 'board', 'loop-back', 'own-headers']);
    expect(ids('closed-loop', CLOSED_STEP)).toEqual(expect.arrayContaining(['lifted', 'board', 'loop-back']));
    expect(ids('strip-clean', BESIDE_STEP)).toEqual(['board', 'own-headers']);
    expect(of('strip-clean', ['board']).steps.some(({ id }) => id === 'lift')).toBe(false);
  });
});

describe('new paste', () => {
  it('is written down with the blocks that it lies under, and refused under what is no part of this machine', () => {
    const run = new TestRun().upTo('close');
    run.say({ type: 'pasted', step: 'close', items: ['graphics'], medium: 'pad', product: 'Grey 2 mm' });
    expect(run.state.service.pastes).toMatchObject([{ items: ['graphics'], medium: 'pad' }]);
    const last = run.events.at(-1);
    expect(last && describeEntry(run.procedure, last, run.events)).toBe('New pad under graphics: Grey 2 mm');
    expect(() => run.say({ type: 'pasted', step: 'close', items: ['flywheel'], medium: 'paste', product: '' })).toThrow();
  });
});
