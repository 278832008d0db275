import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readLoopFile } from '../../../machine/loop-file/loopFileSchema.js';
import { DEFAULT_SCHOOLS } from '../../../physics/leak-testing/schools.js';
import { COOLANT, TestRun } from '../../../../tests/bench/testRun.js';
import { buildProcedure } from '../../procedures/buildProcedure.js';
import { describeEntry } from '../log.js';
import { insideByWeight } from './weighed.js';

const loop = readLoopFile(JSON.parse(readFileSync('examples/no-reservoir.json', 'utf8')));
const procedure = buildProcedure({ loop, schools: { ...DEFAULT_SCHOOLS, leak: 'wet-only' }, order: null, coolantName: null });

function atFill(): TestRun {
  const run = new TestRun(procedure);
  while (run.state.current !== 'fill') run.finish(run.state.current as string);
  run.say(COOLANT);
  return run;
}

describe('a loop without a reservoir on the scale', () => {
  it('holds what the second weight is more, by the density of what was poured', () => {
    const run = atFill();
    run.say({ type: 'weighed', when: 'before', massG: 12_400 });
    run.say({ type: 'pour', volumeMl: 300 });
    run.say({ type: 'weighed', when: 'after', massG: 12_690 });
    // water at 25 °C: 290 g are 290.9 mL; both weighings are 5 g and 0.02 % of 12.5 kg off: hypot(5, 2.5) · √2 = 7.9 g
    const inside = insideByWeight(run.procedure, run.state);
    expect(inside?.volumeMl).toBeCloseTo(290.9, 1);
    expect(inside?.sdMl).toBeCloseTo(7.9, 1);
    // the jug's 300 ± 5.4 and the scale's 290.9 ± 7.9, each by its error: (300 · 7.9² + 290.9 · 5.4²) / (7.9² + 5.4²)
    expect(run.state.contents.insideMl).toBeCloseTo(297.1, 0);
    expect(run.state.contents.insideSdMl).toBeLessThan(5);
    expect(['weighed-before', 'weighed-after'].map((id) => run.state.steps.find(({ kind }) => kind === 'fill')?.checks[id]?.mark)).toEqual([
      'done',
      'done',
    ]);
  });

  it('tells of a pour that nobody entered', () => {
    const run = atFill();
    run.say({ type: 'weighed', when: 'before', massG: 12_400 });
    run.say({ type: 'pour', volumeMl: 200 });
    run.say({ type: 'weighed', when: 'after', massG: 12_700 });
    expect(run.state.contents.insideMl).toBeCloseTo(300.9, 0);
  });

  it('cannot have become lighter, and says nothing of its contents where it was not weighed first', () => {
    const run = atFill();
    run.say({ type: 'weighed', when: 'before', massG: 12_400 });
    run.say({ type: 'pour', volumeMl: 300 });
    expect(run.try({ type: 'weighed', when: 'after', massG: 12_300 })?.message).toMatch(
      /cannot weigh less than before the first pour \(12.400 kg\)/,
    );
    const other = atFill();
    other.say({ type: 'pour', volumeMl: 300 });
    other.say({ type: 'weighed', when: 'after', massG: 12_700 });
    expect(insideByWeight(other.procedure, other.state)).toBeNull();
    expect(other.state.contents.insideMl).toBe(300);
  });

  it('reads in the log with its mass', () => {
    const run = atFill();
    run.say({ type: 'weighed', when: 'before', massG: 12_405 });
    const { events } = run;
    expect(describeEntry(run.procedure, events[events.length - 1] as never, events)).toBe('Machine weighed before the fill: 12.405 kg');
  });
});
