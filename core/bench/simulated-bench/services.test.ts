import { describe, expect, it } from 'vitest';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { WATER } from '../../machine/liquids/fluids.js';
import { reservoirMarks } from '../../machine/loop-file/marks.js';
import { DEFAULT_SCHOOLS } from '../../physics/leak-testing/schools.js';
import { JOB_KIND_KEYS, type JobKind } from '../../workshop/job-kinds/kinds.js';
import { gradeItem } from '../inspection/grade.js';
import { inspectItems } from '../inspection/items.js';
import { buildProcedure } from '../procedures/buildProcedure.js';
import type { RunEventBody } from '../runs/entries/all.js';
import { stepOfKind, type Procedure } from '../runs/procedure.js';
import { RunFold } from '../runs/replay.js';
import { serviceFacts } from '../services/serviceFacts.js';
import { SimulatedBench } from './bench.js';
import { movesOfEntry, movesOfRinseOut } from './movesOfEntry.js';
import { fill, reservoirOf } from './testHands.js';
import { drawTruth, PRACTISED, scenariosFor, type Scenario } from './truth.js';

const START = Date.parse('2026-03-10T09:00:00Z');

/** A service at the practice table: entries are taken as they come, hands follow them. */
function serviceAt(kind: JobKind, scenario: Scenario = 'clean', seed = 7, part: string | null = null) {
  const loop = usualLoop();
  const service = serviceFacts({ loop, kind, jobId: '', filled: true, part, old: null, mixes: [] });
  const procedure = buildProcedure({ loop, schools: DEFAULT_SCHOOLS, order: null, coolantName: null, liquid: WATER, service });
  const truth = drawTruth(loop, seed, scenario, kind);
  const bench = new SimulatedBench(loop, truth, WATER, START, seed, kind);
  const fold = new RunFold(procedure);
  const say = (body: RunEventBody): void => {
    const seq = fold.events.length + 1;
    const { state } = fold.push({ id: `e${seq}`, seq, at: bench.now, by: 'x', body });
    for (const move of movesOfEntry(body, state, procedure)) bench.act(move);
  };
  const tickDrain = (): void => {
    const drain = stepOfKind(procedure, 'drain') as Procedure['steps'][number];
    for (const { id } of drain.checks) say({ type: 'check', step: drain.id, check: id, mark: 'done' });
    say({ type: 'step-done', step: drain.id });
  };
  return { loop, procedure, service, truth, bench, say, tickDrain };
}
/** The same without its sheet: for what hands meet whatever they were told. */
function benchAt(kind: JobKind, scenario: Scenario, seed: number) {
  const loop = usualLoop();
  const truth = drawTruth(loop, seed, scenario, kind);
  return { loop, truth, bench: new SimulatedBench(loop, truth, WATER, START, seed, kind) };
}
/** mL that a hand reads off its jug */
const jugOf = (bench: SimulatedBench): number => Number(bench.act({ do: 'read-jug' })?.text.match(/(\d+) mL/)?.[1] ?? 0);

describe('a machine that comes for a service', () => {
  it('stands filled and bled, a little below its mark, and goes round', () => {
    const { bench, truth } = serviceAt('drain-refill');
    const { fillMarkMl, lowMarkMl } = reservoirMarks(reservoirOf());
    const { gasMl, insideMl, startMl } = bench.report();
    expect(insideMl).toBe(startMl);
    expect(gasMl).toBe(0);
    expect(truth.lowMl).toBeGreaterThan(0);
    expect(truth.lowMl).toBeLessThan(fillMarkMl - lowMarkMl);
    bench.switchSupply(true);
    bench.advance(30);
    expect(bench.readings().flow).toBeGreaterThan(50);
    expect(bench.report().happenings).toEqual([]);
  });

  it('drains over the jug line by line, and nothing runs where none stands', () => {
    const { bench, tickDrain, service } = serviceAt('drain-refill');
    const before = bench.report().insideMl;
    tickDrain();
    const { insideMl, caughtMl = 0, spilledMl } = bench.report();
    expect(spilledMl).toBe(0);
    expect(caughtMl).toBeGreaterThan(0.6 * before);
    expect(insideMl + caughtMl).toBeCloseTo(before, 6);
    // the sheet's own figure, for parts that are off theirs
    expect(Math.abs(insideMl - (service.leftMl ?? 0))).toBeLessThan(0.15 * before);
    expect(Math.abs(jugOf(bench) - caughtMl)).toBeLessThan(0.05 * caughtMl);
  });

  it('empties its jug with the entry that says what was in it', () => {
    const { bench, tickDrain, say } = serviceAt('drain-refill');
    tickDrain();
    say({ type: 'drained', step: 'drain', volumeMl: jugOf(bench), how: 'jug', wasteId: null });
    expect(bench.act({ do: 'read-jug' })?.text).toBe('The jug is empty.');
  });

  it('runs beside the jug where the low port is opened without one', () => {
    const { bench, service } = serviceAt('drain-refill');
    const { drain, airs } = service.stands[0] as (typeof service.stands)[number];
    for (const port of [...airs, drain]) bench.act({ do: 'port', port, open: true });
    expect(bench.report().spilledMl).toBeGreaterThan(100);
    expect(bench.report().happenings).toMatchObject([{ what: 'spilled', by: 'open-port' }]);
  });

  it('loses nothing by a service: what was inside and poured is inside, caught, spilled or on towels', () => {
    for (const kind of PRACTISED) {
      const { bench, tickDrain, say, procedure } = serviceAt(kind, 'clean', 11, kind === 'partial-drain' ? 'graphics' : null);
      if (stepOfKind(procedure, 'drain')) tickDrain();
      for (const step of procedure.steps) if (step.does.includes('empties')) say({ type: 'step-done', step: step.id });
      bench.act({ do: 'pour', ml: 150 });
      const { startMl = 0, pouredMl, insideMl, spilledMl, leakedMl, caughtMl = 0, takenMl = 0, drawnMl = 0 } = bench.report();
      expect(insideMl + spilledMl + leakedMl + caughtMl + takenMl + drawnMl, kind).toBeCloseTo(startMl + pouredMl, 6);
    }
  });
});

describe('a sheet that is followed line by line', () => {
  it.each([
    ['partial-drain', ['graphics', 'processor', 'roof', 'front', 'pump']],
    ['part-replacement', ['graphics', 'front']],
    ['leak-repair', [null]],
    ['conversion', [null]],
    ['retirement', [null]],
    ['strip-clean', [null]],
  ] as const)('of a %s spills nothing where no jug stands, whatever part it goes down to', (kind, parts) => {
    for (const part of parts) {
      const { bench, tickDrain, service } = serviceAt(kind, kind === 'leak-repair' ? 'leak' : 'clean', 5, part);
      const before = bench.report().insideMl;
      tickDrain();
      const { spilledMl, caughtMl = 0, insideMl } = bench.report();
      expect(spilledMl, String(part)).toBe(0);
      expect(caughtMl, String(part)).toBeGreaterThan(0);
      // a partial drain leaves the rest where it was
      if (kind === 'partial-drain') expect(service.takeOut?.part).toBe(part);
      else expect(insideMl).toBeLessThan(0.5 * before);
    }
  });
});

describe('rinsing', () => {
  it('thins the old liquid rinse by rinse, where the pump mixes it, and the water in the jug says so', () => {
    const { bench, service, tickDrain } = serviceAt('flush-refill');
    tickDrain();
    const shares: number[] = [];
    for (let n = 0; n < 5; n += 1) {
      fill(bench, true);
      bench.switchSupply(true);
      bench.advance(60);
      bench.switchSupply(false);
      const { oldMl = 0, insideMl } = bench.report();
      shares.push(oldMl / insideMl);
      if (n === 0) expect(bench.act({ do: 'look-at-water' })?.text).toMatch(/tinted/);
      for (const move of movesOfRinseOut(service)) bench.act(move);
    }
    for (const [index, share] of shares.entries()) if (index > 0) expect(share).toBeLessThan(0.75 * (shares[index - 1] as number));
    expect(bench.act({ do: 'look-at-water' })?.text).toMatch(/^The water is (clear|tinted); the strip says pH \d\.\d\.$/);
    expect(bench.report().spilledMl).toBe(0);
  });
});

describe('the inspection sheet of a practice', () => {
  it('shows one part that is not sound, in what eyes meet and never in a verdict, and every other as sound', () => {
    for (const scenario of ['deposit', 'spent'] as const)
      for (let seed = 1; seed <= 12; seed += 1) {
        const { bench, loop, truth } = benchAt('strip-clean', scenario, seed);
        const odd = truth.finding?.item;
        for (const item of inspectItems(loop)) {
          const text = bench.act({ do: 'look-close', at: item.id })?.text ?? '';
          expect(text).not.toMatch(/replace|use again|watch/i);
          if (item.id !== odd) expect(text).toMatch(/^Nothing lies in it; its metal is even/);
        }
        const kind = inspectItems(loop).find(({ id }) => id === odd)?.kind ?? 'other';
        const findings = { ...truth.finding?.findings, touch: null, text: '' } as Parameters<typeof gradeItem>[1];
        if (scenario === 'spent') expect(['replace', 'watch']).toContain(gradeItem(kind, findings).grade);
        else expect(findings.deposit).not.toBe('none');
      }
  });

  it('is gritty to the finger until it was soaked as often as it takes', () => {
    const { bench, truth } = benchAt('strip-clean', 'deposit', 5);
    const at = truth.finding?.item ?? '';
    for (let soaked = 1; soaked <= 2; soaked += 1) {
      bench.act({ do: 'soaked' });
      expect(bench.act({ do: 'look-close', at })?.text).toBe(
        soaked < (truth.finding?.soaks ?? 0) ? 'Gritty to the finger.' : 'Smooth to the finger.',
      );
    }
  });
});

describe('what may be hidden', () => {
  it('is of the job: no leak in a drain that opens no joint, a leak where one is to be mended, deposit where it is taken apart', () => {
    expect(scenariosFor('drain-refill')).not.toContain('leak');
    expect(scenariosFor('strip-clean')).toContain('deposit');
    expect(scenariosFor(null)).not.toContain('deposit');
    for (let seed = 1; seed <= 30; seed += 1) {
      expect(drawTruth(usualLoop(), seed, 'surprise', 'leak-repair').leak).not.toBeNull();
      for (const job of JOB_KIND_KEYS) expect(scenariosFor(job)).toContain(drawTruth(usualLoop(), seed, 'surprise', job).scenario);
    }
  });

  it('drips on arrival where a leak is to be found, and elsewhere only behind joints that were opened', () => {
    const repair = benchAt('leak-repair', 'leak', 7).bench;
    expect(repair.act({ do: 'look' })?.text).toMatch(/^A drop on the towel/);
    const strip = benchAt('strip-clean', 'leak', 7).bench;
    strip.advance(6 * 3600);
    expect(strip.act({ do: 'look' })?.text).toMatch(/^Every towel is dry/);
    strip.act({ do: 'take-apart' });
    strip.act({ do: 'pump-up', gaugeKpa: 50 });
    strip.advance(1800);
    expect(strip.readings().gauge).toBeLessThan(47);
  });
});
