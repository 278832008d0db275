import { describe, expect, it } from 'vitest';
import { TestRun } from '../../../tests/bench/testRun.js';
import { judgeBleeding } from './criteria.js';
import { drawDownTo, drawnJugMl, isDrawnDown } from './drawDown.js';
import { fillOrder } from './fillOrder.js';
import { describeEntry } from './log.js';
import { wouldLeave } from './wouldLeave.js';

const PLACE = 'graphics';

/** A leak in the middle of the wet test: pump off, drawn down as the plan says, undone and closed, mended. */
function mended(): TestRun {
  const run = new TestRun().upTo('wet').say({ type: 'returned' });
  run.say({ type: 'timer-started', step: 'wet', timer: 'wet-run' }).wait(240).say({ type: 'pump', on: false });
  run.say({ type: 'leak', at: PLACE, when: 'after-minutes', amount: 'drip', text: '' });
  const plan = drawDownTo(run.procedure, run.state, PLACE, run.nowMs);
  if (!plan) throw new Error('this loop has heights');
  for (const port of plan.airs) run.say({ type: 'port', port, open: true });
  if (plan.drawAt) run.say({ type: 'port', port: plan.drawAt, open: true });
  run.say({
    type: 'outflow',
    way: 'drawn-off',
    volumeMl: Math.round(plan.drawFirstMl),
    kept: true,
    ...(plan.drawAt ? { at: plan.drawAt } : {}),
  });
  for (const port of run.state.openPorts) run.say({ type: 'port', port, open: false });
  return run.say({ type: 'leak-mended', leak: run.state.leaks[0]?.eventId ?? '', cause: 'fitting-ring', fix: 'a new ring' });
}

describe('a leak found after the fill', () => {
  it('is drawn down below its joints by what is inside, and what came is in a jug of this run', () => {
    const full = new TestRun().upTo('wet').say({ type: 'returned' });
    const before = wouldLeave(full.procedure, full.state, 'graphics', full.nowMs);
    const plan = drawDownTo(full.procedure, full.state, PLACE, full.nowMs);
    expect(plan?.drawFirstMl).toBeGreaterThan(50);
    expect(before?.alone ?? 0).toBeGreaterThanOrEqual(0);
    const run = mended();
    expect(drawnJugMl(run.state)).toBeCloseTo(plan?.drawFirstMl ?? 0, -1);
    expect(drawDownTo(run.procedure, run.state, PLACE, run.nowMs)?.drawFirstMl).toBeLessThan(0.35 * (plan?.drawFirstMl ?? 0));
    expect(run.events.map((event) => describeEntry(run.procedure, event, run.events)).some((line) => line.startsWith('Drawn down: '))).toBe(
      true,
    );
  });

  it('keeps the clock of the wet test shut until the loop is full again', () => {
    const run = mended();
    expect(isDrawnDown(run.procedure, run.state)).toBe(true);
    expect(run.try({ type: 'timer-started', step: 'wet', timer: 'wet-run' })?.fact.why).toBe('drawn-down');
    expect(fillOrder(run.procedure, run.state, run.nowMs)?.do).toMatch(/pour|read-level/);
    const jugMl = drawnJugMl(run.state);
    expect(run.try({ type: 'pour', volumeMl: jugMl + 300, from: 'drawn-off' })?.fact.why).toBe('jug-holds-less');
    const insideMl = run.state.contents.insideMl ?? 0;
    run.say({ type: 'pour', volumeMl: 100, from: 'drawn-off' });
    expect(run.state.contents.insideMl).toBeCloseTo(insideMl + 100, 6);
    expect(drawnJugMl(run.state)).toBeCloseTo(jugMl - 100, 6);
    run.say({ type: 'pour', volumeMl: Math.floor(jugMl - 100), from: 'drawn-off' }).say({ type: 'returned' });
    const mark = run.procedure.facts?.reservoir?.fillMarkMl ?? 0;
    run.say({ type: 'level', levelMl: mark });
    expect(isDrawnDown(run.procedure, run.state)).toBe(false);
    run.say({ type: 'timer-started', step: 'wet', timer: 'wet-run' }).wait(60);
    expect(run.try({ type: 'leak-retested', leak: run.state.leaks[0]?.eventId ?? '', dry: true })).toBeNull();
  });

  it('found while bleeding, it asks for its stops and starts anew: air got in', () => {
    const run = new TestRun().upTo('bleed').say({ type: 'returned' }).bleed();
    expect(judgeBleeding(run.procedure, run.state).bled).toBe(true);
    run.say({ type: 'outflow', way: 'drawn-off', volumeMl: 150, kept: true });
    expect(judgeBleeding(run.procedure, run.state).bled).toBe(false);
    expect(run.try({ type: 'step-done', step: 'bleed' })?.message).toContain('fill it up again');
  });

  it('is drawn by hose before the inlet is opened, so that what comes down finds room in the reservoir', () => {
    const full = new TestRun().upTo('wet').say({ type: 'returned' });
    const inletOf = 'roof.vent';
    const reservoirMl = full.state.contents.standing?.reservoirMl ?? 0;
    for (const { id } of full.procedure.facts?.joints ?? []) {
      const plan = drawDownTo(full.procedure, full.state, id, full.nowMs);
      if (plan?.drawAt === null && plan.drawFirstMl > 0) expect(plan.byHoseFirstMl).toBeCloseTo(Math.min(reservoirMl, plan.drawFirstMl), 6);
      else expect(plan?.byHoseFirstMl).toBe(0);
    }
    // by hose, then the inlet, then by hose again: what the column let down is what comes
    const drawn = (open: boolean): number => {
      const run = new TestRun().upTo('wet').say({ type: 'returned' }).say({ type: 'outflow', way: 'drawn-off', volumeMl: 150, kept: true });
      if (open) run.say({ type: 'port', port: inletOf, open: true });
      run.say({ type: 'outflow', way: 'drawn-off', volumeMl: 100, kept: true });
      return run.state.contents.standing?.reservoirMl ?? 0;
    };
    expect(drawn(true)).toBeGreaterThanOrEqual(drawn(false));
  });

  it('takes no more out than can be inside', () => {
    const run = new TestRun().upTo('wet');
    expect(run.try({ type: 'outflow', way: 'drawn-off', volumeMl: 9000, kept: true })?.fact.why).toBe('too-much-out');
    expect(run.try({ type: 'outflow', way: 'drawn-off', volumeMl: 90, kept: true, at: 'moon.valve' })?.fact.why).toBe('unknown-port');
  });
});
