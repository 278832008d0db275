import { describe, expect, it } from 'vitest';
import { COOLANT, TestRun } from '../../../tests/bench/testRun.js';
import { levelAgainstBook } from './levelAgainstBook.js';

const filling = (): TestRun => new TestRun().upTo('fill').say(COOLANT);
const seen = (run: TestRun, ml: number): number | null => {
  const mlPerMm = run.procedure.facts?.reservoir?.mlPerMm ?? 1;
  return levelAgainstBook(run.procedure, run.state, run.events.at(-1), ml / mlPerMm, run.nowMs);
};

describe('a level sensor against the book', () => {
  it('puts the book right behind a pour that it saw otherwise, and keeps quiet where both agree', () => {
    const run = filling().say({ type: 'pour', volumeMl: 289, toMark: true }).wait(5);
    const mark = run.procedure.facts?.reservoir?.fillMarkMl ?? 0;
    expect(seen(run, mark)).toBeNull();
    expect(seen(run, mark - 100)).toBeCloseTo(mark - 100, 6);
    run.say({ type: 'level', levelMl: Math.round(mark - 100) }).wait(5);
    expect(seen(run, mark - 100)).toBeNull();
  });

  it('takes nothing for a level while the surface still moves, the pump runs, or a pour is not entered yet', () => {
    const run = filling().say({ type: 'pour', volumeMl: 289, toMark: true });
    expect(seen(run, 40)).toBeNull();
    run.wait(5).say({ type: 'pump', on: true });
    expect(seen(run, 40)).toBeNull();
    run.say({ type: 'pump', on: false }).wait(5);
    expect(seen(run, 40)).toBeNull();
  });
});
