import { describe, expect, it } from 'vitest';
import { TestRun } from '../../../tests/bench/testRun.js';
import { wouldLeave } from './wouldLeave.js';

const filled = (): TestRun => new TestRun().upTo('wet').say({ type: 'level', levelMl: 170 });
const ports = (run: TestRun) => run.procedure.facts?.ports ?? [];
const leaves = (run: TestRun, place: string): number => {
  const found = wouldLeave(run.procedure, run.state, place, run.nowMs);
  return found ? Math.max(found.alone, found.beside) : NaN;
};

describe('what would leave at an opening now', () => {
  it('is nothing at any place of a loop that is dry', () => {
    const run = new TestRun().upTo('close');
    for (const { name } of ports(run)) expect(leaves(run, name)).toBe(0);
    for (const { id } of run.procedure.facts?.joints ?? []) expect(leaves(run, id)).toBe(0);
  });

  it('is much at the lowest port of a filled loop, and nothing above the surface', () => {
    const run = filled();
    const valve = ports(run).find(({ valve: isValve }) => isValve)?.name ?? '';
    const cap = ports(run).find(({ ofReservoir }) => ofReservoir)?.name ?? '';
    run.say({ type: 'port', port: cap, open: true });
    expect(leaves(run, valve)).toBeGreaterThan(100);
    expect(leaves(run, cap)).toBe(0);
    // with the cap shut it hangs there until a bubble gets in
    run.say({ type: 'port', port: cap, open: false });
    expect(wouldLeave(run.procedure, run.state, valve, run.nowMs)?.hangs).toBeGreaterThan(100);
    run.say({ type: 'port', port: cap, open: true });
    const lowest = Math.max(...(run.procedure.facts?.joints ?? []).map(({ id }) => leaves(run, id)));
    expect(lowest).toBeGreaterThan(100);
  });

  it('cannot be told while the machine is tilted between two stands', () => {
    const run = filled().say({ type: 'pump', on: false }).say({ type: 'turn', to: 'on-back', angleDeg: 30 });
    expect(wouldLeave(run.procedure, run.state, ports(run)[0]?.name ?? '', run.nowMs)).toBeNull();
  });
});
