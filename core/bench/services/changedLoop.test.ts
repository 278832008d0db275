import { describe, expect, it } from 'vitest';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { bypassPart } from '../../machine/drawing/bypass.js';
import { fillVolume } from '../../physics/filling/fillPlan.js';
import { DEFAULT_SCHOOLS } from '../../physics/leak-testing/schools.js';
import { TestRun } from '../../../tests/bench/testRun.js';
import { buildProcedure } from '../procedures/buildProcedure.js';
import { describeEntry } from '../runs/log.js';
import { fillTotal } from '../runs/contents.js';
import type { Procedure } from '../runs/procedure.js';
import { replay } from '../runs/replay.js';
import { refuseEntry } from '../runs/rules.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { heldByBook, procedureAfterChange } from './changedLoop.js';
import { serviceFacts } from './serviceFacts.js';

const procedureOf = (loop: LoopFile): Procedure =>
  buildProcedure({
    loop,
    schools: { ...DEFAULT_SCHOOLS, leak: 'dry-then-wet', wet: 'ten-minutes' },
    order: { bottles: 1 },
    coolantName: 'Plain Clear',
    service: serviceFacts({
      loop,
      kind: 'strip-clean',
      jobId: 'job',
      filled: true,
      part: null,
      old: { productId: 'plain', name: 'Plain' },
      mixes: [],
    }),
  });

// built once: the search for the best drain is most of it
const loop = usualLoop();
const part = loop.components.find(({ kind }) => kind === 'block')?.id as string;
const left = bypassPart(loop, part);
const whole = procedureOf(loop);
const without = procedureOf(left.loop);

/** A service whose drain is done, with one part left out behind it. */
function leftOut(heldMl: number) {
  const run = new TestRun(whole);
  for (const { id } of run.procedure.steps) {
    if (id === 'drain') break;
    if (id === 'isolate') run.finish(id);
    else run.tick(id).say({ type: 'deviation', step: id, reason: 'for the test' });
  }
  run.say({ type: 'drained', step: 'drain', volumeMl: 500, how: 'jug', wasteId: null });
  run.tick('drain').say({ type: 'deviation', step: 'drain', reason: 'for the test' });
  const before = run.state;
  const procedure = procedureAfterChange(run.procedure, without, before, [part, left.goneTube]);
  const event = {
    ...(run.events.at(-1) as (typeof run.events)[number]),
    id: 'left-out',
    seq: run.events.length + 1,
    body: { type: 'bypassed', step: 'strip', item: part, goneTube: left.goneTube, text: 'box 4', heldMl } as const,
  };
  const events = [...run.events, event];
  return { loop, part, left, run, before, procedure, event, events, state: replay(procedure, events) };
}

describe('a run that goes on with a part left out', () => {
  it('takes from the book what left with the part, and nothing else', () => {
    const { before, state } = leftOut(30);
    expect(state.contents.insideMl).toBeCloseTo((before.contents.insideMl as number) - 30, 6);
    const { reservoirMl = 0, wettedMl = [] } = state.contents.standing ?? {};
    expect(reservoirMl + wettedMl.reduce((sum, ml) => sum + ml, 0)).toBeCloseTo(
      (before.contents.standing?.reservoirMl ?? 0) + (before.contents.standing?.wettedMl ?? []).reduce((sum, ml) => sum + ml, 0) - 30,
      6,
    );
  });

  it('leaves what was ticked in the open step as it read when it was ticked, and asks the rest anew', () => {
    const run = new TestRun(whole);
    for (const { id } of run.procedure.steps) {
      if (id === 'drain') break;
      if (id === 'isolate') run.finish(id);
      else run.tick(id).say({ type: 'deviation', step: id, reason: 'for the test' });
    }
    const textsOf = ({ steps }: Procedure): Map<string, string> =>
      new Map(steps.find(({ id }) => id === 'drain')?.checks.map(({ id, text }) => [id, text]));
    const [was, made] = [textsOf(whole), textsOf(without)];
    // how much comes is said of either loop
    const [opens] = [...was].find(([id, text]) => made.has(id) && made.get(id) !== text) ?? [''];
    expect(opens).not.toBe('');
    const before = procedureAfterChange(run.procedure, without, run.state, [part, left.goneTube]);
    expect(textsOf(before).get(opens)).toBe(made.get(opens));
    run.say({ type: 'check', step: 'drain', check: opens, mark: 'done' });
    const after = procedureAfterChange(run.procedure, without, run.state, [part, left.goneTube]);
    expect(textsOf(after).get(opens)).toBe(was.get(opens));
    expect([...textsOf(after).keys()]).toEqual([...made.keys()]);
  });

  it('asks the refill for what the loop holds without it', () => {
    const { loop, left, procedure, state } = leftOut(0);
    const inside = state.contents.insideMl as number;
    expect(fillTotal(procedure, state).volumeMl).toBeCloseTo(fillVolume(left.loop).volumeMl - inside, 6);
    expect(fillVolume(left.loop).volumeMl).toBeLessThan(fillVolume(loop).volumeMl);
  });

  it('tells what came before with the loop as it was: the same account, entry by entry', () => {
    const { procedure, run, before } = leftOut(0);
    const then = replay(procedure, run.events);
    expect(then.contents).toEqual(before.contents);
  });

  it('has its joints tested no more, and is still known by its name', () => {
    const { part, left, procedure, run, event, events } = leftOut(12);
    const places = procedure.steps.flatMap(({ id, checks }) =>
      run.state.steps.find((step) => step.id === id)?.status === 'done' ? [] : checks.map(({ place }) => place),
    );
    expect(places).not.toContain(part);
    expect(places).not.toContain(left.goneTube);
    expect(describeEntry(procedure, event, events)).toMatch(/^Left out of the loop: (?!block)[^,]+, box 4, 12 mL inside it$/);
  });

  it('reckons what is inside a part where nobody measured', () => {
    const { before, part, run } = leftOut(0);
    const held = heldByBook(run.procedure, before, part);
    expect(held).toBeGreaterThanOrEqual(0);
    expect(held).toBeLessThanOrEqual(run.procedure.twin?.loop.components.find(({ id }) => id === part)?.volume_ml as number);
  });

  it('cannot be taken back in the log: the tubes are one', () => {
    const { procedure, events, event, state } = leftOut(0);
    const nowMs = Date.parse(event.at);
    expect(refuseEntry(procedure, state, events, { type: 'withdrawn', event: event.id }, nowMs)?.fact.why).toBe('not-undone');
    expect(refuseEntry(procedure, state, events, event.body, nowMs)?.fact.why).toBe('bypass-elsewhere');
  });
});
