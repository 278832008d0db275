import { readFileSync } from 'node:fs';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import { buildProcedure } from '../procedures/buildProcedure.js';
import { fillTotal, ledgerOf } from '../runs/contents.js';
import { lackWords, TestRun } from '../../../tests/bench/testRun.js';
import { describeEntry } from '../runs/log.js';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { serviceReport } from '../../edge/records/serviceReport.js';
import { looseEnds } from '../runs/looseEnds.js';
import { describe, expect, it } from 'vitest';
import { type Procedure } from '../runs/procedure.js';
import { DEFAULT_SCHOOLS } from '../../physics/leak-testing/schools.js';
import { LEDGER } from '../../physics/contents/ledger.js';
import { mayMix, type Miscible } from '../../machine/liquids/mixing.js';
import { fillVolume } from '../../physics/filling/fillPlan.js';
import type { ItemFindings } from '../inspection/grade.js';
import { JOB_KIND_KEYS, type JobKind } from '../../workshop/job-kinds/kinds.js';
import { serviceFacts } from './serviceFacts.js';

const plain: Miscible = { productId: 'plain', name: 'Plain Clear', coolantClass: 'clear', glycol: null, inhibitor: 'K2' };
const pearl: Miscible = { productId: 'pearl', name: 'Pearl', coolantClass: 'show', glycol: null, inhibitor: '' };
const PRODUCT = '00000000-0000-4000-8000-00000000abcd';

const made = new Map<string, Procedure>();
/** Built once: the search for the best drain is most of it. */
function procedureOf(kind: JobKind, part: string | null = null): Procedure {
  const key = `${kind} ${part ?? ''}`;
  const known = made.get(key) ?? procedureFor(kind, part);
  made.set(key, known);
  return known;
}

const procedureFor = (kind: JobKind, part: string | null, loop = usualLoop()): Procedure => {
  return buildProcedure({
    loop,
    schools: { ...DEFAULT_SCHOOLS, leak: 'wet-only', wet: 'ten-minutes' },
    order: { bottles: 1 },
    coolantName: 'Plain Clear',
    service: serviceFacts({
      loop,
      kind,
      jobId: 'job',
      filled: true,
      part,
      old: { productId: 'plain', name: 'Plain Clear' },
      mixes: [mayMix(plain, { ...plain, productId: PRODUCT }), mayMix(plain, pearl)],
    }),
  });
};
const service = (run: TestRun) => run.procedure.service as NonNullable<Procedure['service']>;
const open = (run: TestRun, step: string): string[] => lackWords(run.procedure, run.state, step, run.nowMs);
const sound: ItemFindings = { deposit: 'none', surface: 'sound', seal: null, worn: false, touch: null, wall: null, text: '' };

/** Everything up to the drain, as every opened loop begins. */
function toDrain(run: TestRun): TestRun {
  for (const { id } of run.procedure.steps) {
    if (id === 'drain') return run;
    if (id === 'before') run.say({ type: 'baseline', before: true, reading: reading(66) });
    run.finish(id);
  }
  return run;
}
const reading = (partC: number) => ({
  setting: 'load, quiet',
  workload: 'render',
  durationMinutes: 45,
  powerW: 400,
  sensor: 'processor package',
  statistic: 'peak' as const,
  panels: 'on' as const,
  pumpPercent: 60,
  fanPercent: 40,
  roomC: 22,
  partC,
  coolantC: 33,
  flowLph: 180,
  levelMm: 120,
});
/** Drains as the plan says, to the millilitre. */
function drain(run: TestRun): TestRun {
  for (const { drainedMl } of service(run).stands)
    run.say({ type: 'drained', step: 'drain', volumeMl: Math.round(drainedMl), how: 'jug', wasteId: null });
  return run.finish('drain');
}
function refill(run: TestRun): TestRun {
  run.say({ type: 'coolant', productId: PRODUCT, productName: 'Plain Clear', lotId: null, lot: null });
  return run.say({ type: 'pour', volumeMl: Math.round(fillTotal(run.procedure, run.state).volumeMl) });
}

describe('the procedures of service jobs', () => {
  it('begin with their kit and end with the sign-off, whatever the kind', () => {
    for (const kind of JOB_KIND_KEYS) {
      const { steps } = procedureOf(kind, 'graphics');
      expect(steps[0]?.id).toBe('kit');
      expect(steps.at(-1)?.id).toBe('sign-off');
      expect(new Set(steps.map(({ id }) => id)).size).toBe(steps.length);
    }
  });

  it('never open a loop before everything but the pump is off its plug', () => {
    for (const kind of JOB_KIND_KEYS) {
      const ids = procedureOf(kind, 'graphics').steps.map(({ id }) => id);
      if (ids.includes('drain')) expect(ids.indexOf('isolate')).toBeLessThan(ids.indexOf('drain'));
    }
  });

  it('lead the advised drain stand by stand, with its openings by name', () => {
    const step = procedureOf('drain-refill').steps.find(({ id }) => id === 'drain');
    const texts = step?.checks.map(({ text }) => text) ?? [];
    expect(texts[0]).toMatch(/^Air inlet open: /);
    expect(texts.some((text) => /^Jug under drain.*mL come$/.test(text))).toBe(true);
  });

  it('lead what would run over the reservoir’s rim away by a tube, before air lets it come', () => {
    const loop = readLoopFile(JSON.parse(readFileSync('examples/high-drain.json', 'utf8')));
    const step = procedureFor('drain-refill', null, loop).steps.find(({ id }) => id === 'drain');
    const upright = step?.checks.filter(({ group }) => group === '1. As it stands').map(({ text }) => text) ?? [];
    expect(upright[0]).toMatch(/^Scrap tube on .*, tight, its end low in a jug/);
    expect(upright[1]).toMatch(/^Air inlet open: /);
    expect(step?.checks.some(({ text }) => /^Jug under/.test(text))).toBe(true);
  });

  it('drain only down to the part that is changed, and say what stays in it', () => {
    const step = procedureOf('partial-drain', 'graphics').steps.find(({ id }) => id === 'drain');
    expect(step?.checks.map(({ group }) => group)).toContain('Down to graphics');
    expect(step?.checks.some(({ text }) => /stays? in the part/.test(text))).toBe(true);
  });

  it('ask for a card strip-down where a card carries a block, and for no other', () => {
    const step = procedureOf('strip-clean').steps.find(({ id }) => id === 'strip');
    expect(step?.checks.filter(({ id }) => id.startsWith('card:graphics:')).length).toBeGreaterThan(4);
    expect(step?.checks.some(({ id }) => id.startsWith('card:processor:'))).toBe(false);
  });
});

describe('a top-up', () => {
  it('has what lies between the marks ready, never a whole loop', () => {
    const procedure = procedureOf('top-up');
    const reservoir = procedure.twin?.loop.components.find(({ kind }) => kind === 'reservoir');
    const betweenMl = (reservoir?.max_fill_ml ?? 0) - (reservoir?.low_mark_ml ?? 0);
    expect(procedure.fillPlan.total.volumeMl).toBeGreaterThan(0);
    expect(procedure.fillPlan.total.volumeMl).toBeLessThan(betweenMl);
  });
});

describe('a drain and refill', () => {
  it('asks back exactly what came out, and ends with a balanced book', () => {
    const run = drain(toDrain(new TestRun(procedureOf('drain-refill'))));
    const outMl = run.state.service.drains.reduce((sum, { volumeMl }) => sum + volumeMl, 0);
    expect(fillTotal(run.procedure, run.state).volumeMl).toBeCloseTo(outMl, -1);
    refill(run);
    const ledger = ledgerOf(service(run), run.state);
    expect(ledger.insideMl).toBeCloseTo(fillVolume(usualLoop()).volumeMl, 0);
    expect(ledger.shares.old).toBeGreaterThan(0);
  });

  it('cannot be closed with nothing measured, nor with more out than in', () => {
    const run = toDrain(new TestRun(procedureOf('drain-refill')));
    expect(open(run, 'drain')).toContain('nothing came out yet');
    expect(run.try({ type: 'drained', step: 'drain', volumeMl: 9000, how: 'jug', wasteId: null })?.message).toContain('cannot come out');
  });

  it('closes a cap before a turn as long as a cupful stands inside, and leaves the pump off while anything is open', () => {
    const run = toDrain(new TestRun(procedureOf('drain-refill')));
    const cap = run.procedure.facts?.ports.find(({ ofReservoir, valve: is }) => ofReservoir && !is)?.name ?? '';
    const inside = service(run).inside?.volumeMl ?? 0;
    run.say({ type: 'drained', step: 'drain', volumeMl: Math.round(inside - 40), how: 'jug', wasteId: null });
    run.say({ type: 'port', port: cap, open: true });
    expect(run.try({ type: 'turn', to: 'on-back', angleDeg: 90 })?.rule).toBe('cap-before-turn');
    // the cap may stay open while liquid goes in; while it comes out nothing may
    expect(run.try({ type: 'pump', on: true })?.rule).toBe('port-open');
  });

  it('books the liquid that a part took along when it left full', () => {
    const run = drain(toDrain(new TestRun(procedureOf('partial-drain', 'graphics'))));
    const before = ledgerOf(service(run), run.state).insideMl ?? 0;
    while (run.state.current !== 'swap') run.finish(run.state.current ?? '');
    run.say({ type: 'swapped', step: 'swap', item: 'graphics', action: 'replaced', text: 'new block', heldMl: 55 });
    expect(ledgerOf(service(run), run.state).insideMl).toBeCloseTo(before - 55, 9);
  });

  it('names liquid that is still inside against the twin’s figure', () => {
    const run = toDrain(new TestRun(procedureOf('drain-refill')));
    for (const { drainedMl } of service(run).stands)
      run.say({ type: 'drained', step: 'drain', volumeMl: Math.max(1, Math.round(0.3 * drainedMl)), how: 'jug', wasteId: null });
    expect(serviceReport(run.procedure, run.state)?.volumes.balance).toContain('more inside than this loop should keep');
  });

  it('wants an air inlet before the valve: liquid stands inside before anything was poured', () => {
    const run = toDrain(new TestRun(procedureOf('drain-refill')));
    const valve = run.procedure.facts?.ports.find(({ valve: is }) => is)?.name ?? '';
    expect(run.try({ type: 'port', port: valve, open: true })).toMatchObject({ rule: 'air-before-drain', mayOverride: true });
  });

  it('refuses a coolant that must not meet the old one, unless a reason is written down', () => {
    const run = drain(toDrain(new TestRun(procedureOf('drain-refill'))));
    const body = { type: 'coolant', productId: 'pearl', productName: 'Pearl', lotId: null, lot: null } as const;
    expect(run.try(body)).toMatchObject({ rule: 'must-not-mix' });
    expect(run.try(body)?.message).toContain('never go together');
  });
});

describe('a flush', () => {
  const flushed = () => drain(toDrain(new TestRun(procedureOf('flush-refill'))));

  it('is done when the share of old liquid, the clarity and the pH say so, each by name', () => {
    const run = flushed();
    const inside = ledgerOf(service(run), run.state).insideMl ?? 0;
    const stays = Math.max(inside, LEDGER.filmShare * (service(run).inside?.volumeMl ?? 0));
    expect(open(run, 'rinse')).toContain('nothing rinsed yet');
    run.say({ type: 'rinse', step: 'rinse', liquid: 'cleaner', volumeMl: 600 });
    run.say({ type: 'drained', step: 'rinse', volumeMl: 600, how: 'jug', wasteId: null });
    for (let n = 0; n < 3; n += 1) {
      run.say({ type: 'rinse', step: 'rinse', liquid: 'distilled', volumeMl: 600 });
      run.say({ type: 'drained', step: 'rinse', volumeMl: 600, how: 'jug', wasteId: null });
    }
    run.say({ type: 'water', step: 'rinse', ph: 4.1, clarity: 'tinted' });
    expect(open(run, 'rinse').join(' ')).toMatch(/still tinted.*pH 4\.1/);
    run.say({ type: 'water', step: 'rinse', ph: 6.8, clarity: 'clear' });
    expect(open(run, 'rinse')).toEqual([]);
    expect(ledgerOf(service(run), run.state).shares.old).toBeCloseTo((stays / (stays + 600)) ** 4, 4);
    // mains water may rinse, never last; and what was read before it says nothing of it
    run.say({ type: 'rinse', step: 'rinse', liquid: 'mains', volumeMl: 600 });
    run.say({ type: 'drained', step: 'rinse', volumeMl: 600, how: 'jug', wasteId: null });
    expect(open(run, 'rinse').join(' ')).toMatch(/last rinse was mains water: one more with distilled water.*last water was not read/);
    run.say({ type: 'rinse', step: 'rinse', liquid: 'distilled', volumeMl: 600 });
    run.say({ type: 'drained', step: 'rinse', volumeMl: 600, how: 'jug', wasteId: null });
    // a cleaner in the closed loop has its clock
    run.say({ type: 'soak', step: 'rinse', on: true, cleaner: 'citric', mostMinutes: 30 });
    expect(open(run, 'rinse').join(' ')).toContain('citric is still in');
    run.say({ type: 'soak', step: 'rinse', on: false, cleaner: 'citric', mostMinutes: 30 });
    run.say({ type: 'water', step: 'rinse', ph: 6.9, clarity: 'clear' });
    expect(open(run, 'rinse')).toEqual([]);
  });

  it('does not take a pump that runs with the drain valve open', () => {
    const run = flushed();
    const valve = run.procedure.facts?.ports.find(({ valve: is }) => is)?.name ?? '';
    const inlet = run.procedure.facts?.ports.filter(({ valve: is }) => !is).sort((a, b) => b.heightMm - a.heightMm)[0]?.name ?? '';
    run.say({ type: 'port', port: inlet, open: true }).say({ type: 'port', port: valve, open: true });
    expect(run.try({ type: 'pump', on: true })?.rule).toBe('port-open');
  });
});

describe('a strip and clean', () => {
  const inspected = (): TestRun => {
    const run = drain(toDrain(new TestRun(procedureOf('strip-clean'))));
    run.finish('strip');
    for (const item of service(run).items)
      run.say({
        type: 'inspected',
        step: 'inspect',
        item: item.id,
        findings: item.id === 'graphics' ? { ...sound, deposit: 'layer' } : item.id === 'pump' ? { ...sound, worn: true } : sound,
      });
    return run;
  };

  it('starts its book anew once the loop is apart, and keeps what nobody saw leave', () => {
    const run = inspected();
    expect(ledgerOf(service(run), run.state)).toMatchObject({ insideMl: 0, emptied: true });
    expect(fillTotal(run.procedure, run.state).volumeMl).toBeCloseTo(fillVolume(usualLoop()).volumeMl, 6);
  });

  it('asks for a cause, for smooth parts, and for what must be replaced, each before its step is done', () => {
    const run = inspected();
    expect(open(run, 'inspect').join()).toContain('a suspected cause');
    run.say({ type: 'cause', step: 'inspect', cause: 'fallout', suspect: 'coolant-lot', item: null, particlesStayed: false, text: '' });
    run.finish('inspect');
    run.say({ type: 'soak', step: 'clean', on: true, cleaner: 'citric bath', mostMinutes: 60 });
    expect(open(run, 'clean').join()).toMatch(/citric bath is still in.*not felt smooth yet: graphics/);
    run.wait(3000).say({ type: 'soak', step: 'clean', on: false, cleaner: 'citric bath', mostMinutes: 60 });
    run.say({ type: 'inspected', step: 'clean', item: 'graphics', findings: { ...sound, deposit: 'layer', touch: 'smooth' } });
    run.say({ type: 'water', step: 'clean', ph: 6.9, clarity: 'clear' });
    run.finish('clean');
    expect(open(run, 'swap').join()).toContain('to be replaced: pump');
    run.say({ type: 'swapped', step: 'swap', item: 'pump', action: 'replaced', text: 'new pump of the same kind', heldMl: 0 });
    run.finish('swap');
    expect(run.state.current).toBe('close');
    expect(looseEnds(run.procedure, run.state)).toEqual([]);
  });

  it('keeps several suspicions beside each other; said again, one stands as it is said now', () => {
    const run = inspected();
    const say = (item: string | null, text: string) =>
      run.say({ type: 'cause', step: 'inspect', cause: 'corrosion', suspect: item === null ? 'none' : 'part', item, particlesStayed: false, text }); // prettier-ignore
    say('pump', 'pits');
    say('graphics', 'green');
    say('pump', 'pits and rust');
    expect(run.state.service.causes.map(({ item, text }) => [item, text])).toEqual([
      ['graphics', 'green'],
      ['pump', 'pits and rust'],
    ]);
  });

  it('does not claim clean when particles stayed, a stage was skipped or a cleaner stayed too long', () => {
    const run = inspected();
    run.say({ type: 'cause', step: 'inspect', cause: 'fallout', suspect: 'none', item: null, particlesStayed: true, text: '' });
    run.finish('inspect');
    run.say({ type: 'soak', step: 'clean', on: true, cleaner: 'citric bath', mostMinutes: 10 });
    run.wait(3600).say({ type: 'soak', step: 'clean', on: false, cleaner: 'citric bath', mostMinutes: 10 });
    run.say({ type: 'deviation', step: 'clean', reason: 'no time today' });
    expect(looseEnds(run.procedure, run.state)).toEqual([
      { why: 'particles-stayed' },
      { why: 'step-passed-over', step: 'Clean' },
      { why: 'cleaner-too-long', cleaner: 'citric bath' },
    ]);
  });

  it('does not claim clean of a radiator with deposit that met no cleaner, nor of a loop that a mouth blew into', () => {
    const run = inspected();
    const [radiator] = service(run).items.filter(({ kind }) => kind === 'radiator');
    run.say({ type: 'inspected', step: 'inspect', item: radiator?.id ?? '', findings: { ...sound, deposit: 'film' } });
    run.say({ type: 'cause', step: 'inspect', cause: 'fallout', suspect: 'none', item: null, particlesStayed: false, text: '' });
    run.finish('inspect');
    expect(looseEnds(run.procedure, run.state)).toEqual([{ why: 'radiator-not-soaked', name: radiator?.name }]);
    run.say({ type: 'soak', step: 'clean', on: true, cleaner: 'citric bath', mostMinutes: 60 });
    expect(looseEnds(run.procedure, run.state)).toEqual([]);
    const blown = drain(toDrain(new TestRun(procedureOf('strip-clean'))));
    blown.say({ type: 'blown', step: 'drain' });
    expect(looseEnds(blown.procedure, blown.state)).toEqual([{ why: 'blown-by-mouth' }]);
  });
});

describe('a leak repair', () => {
  it('wants the leak named, mended and its joint tested again, and keeps a temporary fix with its limits', () => {
    const run = new TestRun(procedureOf('leak-repair'));
    run.finish('kit').finish('isolate');
    expect(open(run, 'find').join()).toContain('no leak recorded yet');
    const where = run.procedure.facts?.joints[0]?.id ?? '';
    run.say({ type: 'leak', at: where, when: 'warm', amount: 'seep', text: 'a wet ring' });
    const leak = run.state.leaks[0]?.eventId ?? '';
    run.finish('find');
    drain(run);
    expect(open(run, 'mend').join()).toContain('1 leak not mended');
    run.say({ type: 'leak-mended', leak, cause: 'fitting-ring', fix: 'old ring turned' });
    expect(
      run.try({
        type: 'temporary-fix',
        step: 'mend',
        what: 'old ring',
        awaits: 'a new ring',
        until: '2020-01-01',
        limits: ['do-not-move'],
      }),
    ).toMatchObject({ code: 'unsafe' });
    run.say({
      type: 'temporary-fix',
      step: 'mend',
      what: 'old ring',
      awaits: 'a new ring',
      until: '2026-04-01',
      limits: ['do-not-move', 'level-daily'],
    });
    run.finish('mend');
    expect(serviceReport(run.procedure, run.state)?.temporary[0]?.limits).toEqual([
      'do not move the machine',
      'look at the level every day',
    ]);
  });
});

describe('entries of a service', () => {
  it('are refused in a commissioning', () => {
    const run = new TestRun();
    expect(run.try({ type: 'drained', step: 'kit', volumeMl: 100, how: 'jug', wasteId: null })?.message).toContain('belongs to a service');
  });

  it('can be read years later without the program', () => {
    const run = new TestRun(procedureOf('flush-refill'));
    run.say({ type: 'lost', step: 'kit', volumeMl: 20, text: 'on the towel' });
    const event = run.events[0] as TestRun['events'][number];
    expect(describeEntry(run.procedure, event, run.events)).toBe('Lost: about 20 mL (on the towel)');
  });
});
