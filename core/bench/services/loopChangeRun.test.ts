import { describe, expect, it } from 'vitest';
import { TestRun } from '../../../tests/bench/testRun.js';
import { seededRandom } from '../../base/random/random.js';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { bypassPart } from '../../machine/drawing/bypass.js';
import { generateChange } from '../../machine/loop-change/generatedChanges.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { fillVolume } from '../../physics/filling/fillPlan.js';
import { DEFAULT_SCHOOLS } from '../../physics/leak-testing/schools.js';
import { buildProcedure } from '../procedures/buildProcedure.js';
import { changeChecks } from '../procedures/expandChange.js';
import { fillTotal } from '../runs/contents.js';
import { lacksOf } from '../runs/criteria.js';
import { stepThat, type Procedure } from '../runs/procedure.js';
import { replay } from '../runs/replay.js';
import { procedureAfterChange, rebuiltEntry } from './changedLoop.js';
import { outFacts, serviceFacts } from './serviceFacts.js';

type Facts = Parameters<typeof serviceFacts>[0];
const given = { kind: 'loop-change', jobId: 'job', filled: true, part: null, old: null, mixes: [] } as const satisfies Partial<Facts>;
const procedureOf = (loop: LoopFile, more: Partial<Facts>): Procedure =>
  buildProcedure({
    loop,
    schools: { ...DEFAULT_SCHOOLS, leak: 'dry-then-wet', wet: 'ten-minutes' },
    order: null,
    coolantName: null,
    service: serviceFacts({ ...given, loop, ...more }),
  });

const inside = usualLoop();
/** Another block on the card: the change at hand. */
const wanted: LoopFile = { ...inside, components: inside.components.map((part) => (part.id === 'graphics' ? { ...part, catalogue: 'another-make', volume_ml: 90 } : part)) }; // prettier-ignore

// built once: the search for the best drain is most of it
const procedureNow = procedureOf(inside, { wanted });

/** A change up to its own step, with everything before it passed. */
function atChange(): TestRun {
  const run = new TestRun(procedureNow);
  for (const { id, does } of run.procedure.steps) {
    if (does.includes('changes-loop')) break;
    if (id === 'drain') run.say({ type: 'drained', step: 'drain', volumeMl: 500, how: 'jug', wasteId: null });
    if (does.includes('isolates')) run.finish(id);
    else run.tick(id).say({ type: 'deviation', step: id, reason: 'for the test' });
  }
  return run;
}
const lacks = (run: TestRun) => lacksOf(run.procedure, run.state, 'change', run.nowMs).map(({ why }) => why);

describe('a service that changes its loop', () => {
  it('drains down to what changes where that is less, and whole where nearly all of it comes anyway', () => {
    const facts = (loop: LoopFile): ReturnType<typeof outFacts> => outFacts({ loop: inside, part: null, wanted: loop });
    const card = facts(wanted);
    expect(card.change?.undone.length).toBe(2);
    expect(card.change?.drain).toBe('down-to');
    const comes = (card.takeOut?.drawFirstMl ?? 0) + (card.takeOut?.insideMl ?? 0);
    expect(comes).toBeGreaterThan(0);
    expect(comes).toBeLessThan(fillVolume(inside).volumeMl);
    // the lowest joints of the loop: nothing stays above them
    const low = facts(bypassPart(inside, 'drain').loop);
    expect(low.change?.drain).toBe('whole');
    expect(low.takeOut).toBeNull();
    expect(facts(inside).change).toBeUndefined();
  });

  it('names each thing that comes out, goes in and is made, and locks what was not flushed', () => {
    const step = stepThat(procedureNow, 'changes-loop');
    const ids = step?.checks.map(({ id }) => id) ?? [];
    expect(ids).toEqual(expect.arrayContaining(['out:graphics', 'flushed:graphics', 'in:graphics']));
    expect(step?.checks.find(({ id }) => id === 'flushed:graphics')?.beforePower).toBe(true);
    expect(ids.some((id) => id.startsWith('card:graphics'))).toBe(true);
  });

  it('says what the build check finds new in the wanted loop, and nothing that was lived with', () => {
    // fed at its outlet: a stop that the loop inside does not have
    const turned: LoopFile = { ...wanted, components: wanted.components.map((part) => (part.id === 'graphics' ? { ...part, flow: [...(part.flow ?? [])].reverse() as never } : part)) }; // prettier-ignore
    const checksOf = (loop: LoopFile, target: LoopFile) =>
      procedureOf(loop, { wanted: target }).steps.flatMap(({ id, checks }) => checks.filter((check) => check.id.startsWith('finding:')).map((check) => [id, check.id, check.beforePower])); // prettier-ignore
    expect(checksOf(inside, turned)).toEqual([
      ['kit', 'finding:fed-backwards:graphics', true],
      ['close', 'finding:fed-backwards:graphics', true],
    ]);
    const had: LoopFile = { ...inside, components: inside.components.map((part) => (part.id === 'processor' ? { ...part, flow: [...(part.flow ?? [])].reverse() as never } : part)) }; // prettier-ignore
    const still: LoopFile = { ...had, components: had.components.map((part) => wanted.components.find(({ id, catalogue }) => id === part.id && catalogue === 'another-make') ?? part) }; // prettier-ignore
    expect(checksOf(had, still)).toEqual([]);
  });

  it('goes on only once the part that came out has a place and somebody said that it is built, and cannot be passed over', () => {
    const run = atChange().tick('change');
    expect(lacks(run)).toEqual(['no-place', 'not-rebuilt']);
    expect(run.try({ type: 'deviation', step: 'change', reason: 'never mind' })?.fact.why).toBe('protects-change');
    expect(run.try(rebuiltEntry(run.procedure, 'change'))?.fact.why).toBe('rebuilt-elsewhere');
    run.say({ type: 'swapped', step: 'change', item: 'graphics', action: 'removed', text: 'box 4', heldMl: 0 });
    expect(lacks(run)).toEqual(['not-rebuilt']);
  });

  it('then fills, tests and tells the other loop, and still tells what came before with the one that was inside', () => {
    const run = atChange().tick('change').say({ type: 'swapped', step: 'change', item: 'graphics', action: 'removed', text: 'box 4', heldMl: 20 }); // prettier-ignore
    const before = run.state;
    const made = procedureOf(wanted, { change: run.procedure.service?.change });
    const entry = rebuiltEntry(run.procedure, 'change');
    const procedure = procedureAfterChange(run.procedure, made, before, [...entry.outParts, ...entry.outTubes]);
    const event = { ...(run.events.at(-1) as (typeof run.events)[number]), id: 'rebuilt', seq: run.events.length + 1, body: entry };
    const state = replay(procedure, [...run.events, event]);
    const insideMl = state.contents.insideMl as number;
    expect(lacksOf(procedure, state, 'change', run.nowMs)).toEqual([]);
    expect(fillTotal(procedure, state).volumeMl).toBeCloseTo(fillVolume(wanted).volumeMl - insideMl, 3);
    // the new block is dry: what the book had in the old one is not in it
    const { reservoirMl = 0, wettedMl = [] } = state.contents.standing ?? {};
    expect(reservoirMl + wettedMl.reduce((sum, ml) => sum + ml, 0)).toBeLessThanOrEqual(insideMl + 40);
    // entry by entry the same account up to there
    expect(replay(procedure, run.events).contents.insideMl).toBeCloseTo(before.contents.insideMl as number, 6);
    expect(procedure.steps.map(({ id }) => id)).toEqual(run.procedure.steps.map(({ id }) => id));
  });

  it('names each line once, whatever the change is', () => {
    for (let seed = 1; seed <= 40; seed += 1) {
      const { change } = outFacts({ loop: inside, part: null, wanted: generateChange(inside, seededRandom(seed)) }, null);
      const checks = change ? changeChecks(change) : [];
      expect(checks.length).toBeGreaterThan(1);
      expect(new Set(checks.map(({ id }) => id)).size).toBe(checks.length);
    }
  });
});

describe('a change after which another coolant is poured', () => {
  const kinds = (of: Procedure): string[] => of.steps.map(({ kind }) => kind);

  it('drains whole and rinses what stayed wet, before the first of the new goes in', () => {
    const other = procedureOf(inside, { wanted, follows: 'rinse-between' });
    expect(other.service?.change?.drain).toBe('whole');
    expect(kinds(other)[kinds(other).indexOf('fill') - 1]).toBe('rinse');
  });

  it('drains as little as it can and rinses nothing where the two may meet', () => {
    for (const same of [procedureNow, procedureOf(inside, { wanted, follows: 'fine' })]) {
      expect(kinds(same)).not.toContain('rinse');
      expect(same.service?.change?.drain).toBe('down-to');
    }
  });

  it('adds no second rinse to a flush, and none where nothing is let out', () => {
    const of = (kind: 'flush-refill' | 'top-up' | 'part-replacement') =>
      kinds(procedureOf(inside, { kind, follows: 'never' })).filter((each) => each === 'rinse');
    expect([of('flush-refill').length, of('top-up').length, of('part-replacement').length]).toEqual([1, 0, 1]);
  });
});
