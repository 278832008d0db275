import type { RunEventBody } from '../runs/entries/all.js';
import { TestRun } from '../../../tests/bench/testRun.js';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { describe, expect, it } from 'vitest';
import { SimulatedBench } from '../simulated-bench/bench.js';
import { drawTruth, type HiddenTruth, type Scenario } from '../simulated-bench/truth.js';
import type { BenchReport } from '../simulated-bench/report.js';
import { leakCauseWords } from '../leak-finding/causes.js';
import { WATER } from '../../machine/liquids/fluids.js';
import { debrief, type Debrief } from './debrief.js';

const START = '2026-03-10T09:00:00.000Z';

function reportOf(scenario: Scenario, more: Partial<BenchReport> = {}, truth: Partial<HiddenTruth> = {}): BenchReport {
  const hidden = { ...drawTruth(usualLoop(), 11, scenario), ...truth };
  return { ...new SimulatedBench(usualLoop(), hidden, WATER, Date.parse(START), 11).report(), ...more };
}

const told = (run: TestRun, report: BenchReport): Debrief =>
  debrief({ procedure: run.procedure, events: run.events, report, startedAt: START, endedAt: new Date(run.nowMs).toISOString() });
const texts = ({ lines }: Debrief, kind: string): string[] => lines.filter((line) => line.kind === kind).map(({ text }) => text);
const leakAt = (at: string): RunEventBody => ({ type: 'leak', at, when: 'under-pressure', amount: 'seep', text: '' });

describe('a debrief', () => {
  it('tells the hidden fault, by name', () => {
    const report = reportOf('leak');
    const joint = report.truth.leak?.place ?? '';
    const run = new TestRun();
    const name = run.procedure.facts?.joints.find(({ id }) => id === joint)?.name;
    const cause = leakCauseWords(report.truth.leak?.cause ?? '');
    expect(told(run, report).hidden).toContain(`A leak at ${name}. Its cause: ${cause}.`);
    expect(told(run, reportOf('clean')).hidden).toContain('No fault. Only the volumes were off their sheets.');
    expect(told(run, reportOf('weak-pump')).hidden[0]).toMatch(/^A pump at \d+ %? ?.*of its speed/);
  });

  it('tells a leak found dry from one found wet, and from one that was not there', () => {
    const report = reportOf('leak', { leakMended: true, leakedMl: 12 });
    const joint = report.truth.leak?.place ?? '';
    const dry = new TestRun().upTo('dry').say(leakAt(joint));
    expect(texts(told(dry, report), 'good')).toContainEqual(expect.stringMatching(/found with air/));
    const wet = new TestRun().upTo('wet').say(leakAt(joint));
    const late = told(wet, report);
    expect(texts(late, 'missed')).toContainEqual(expect.stringMatching(/found with coolant inside; 12 mL came out first/));
    expect(texts(late, 'saving')).toContainEqual(expect.stringMatching(/the air test before it should have shown it/));
    expect(late.savedS).toBeGreaterThan(0);
    const wrong = usualLoop().tubes.find(({ id }) => id !== joint)?.id ?? '';
    expect(texts(told(new TestRun().upTo('dry').say(leakAt(wrong)), report), 'missed')).toContainEqual(
      expect.stringMatching(/was tight; the leak written down there was none/),
    );
  });

  it('tells whether the cause was named right: what is mended by another one leaks again', () => {
    const report = reportOf('leak', { leakMended: true });
    const { place: joint = '', cause = 'fitting-ring' } = report.truth.leak ?? {};
    const mended = (by: string): TestRun => {
      const run = new TestRun().upTo('dry').say(leakAt(joint));
      return run.say({ type: 'leak-mended', leak: run.events.at(-1)?.id ?? '', cause: by as 'fitting-ring', fix: 'seated' });
    };
    expect(texts(told(mended(cause), report), 'good')).toContainEqual(expect.stringMatching(/^Its cause was named right/));
    const other = cause === 'fitting-ring' ? 'cut-not-square' : 'fitting-ring';
    expect(texts(told(mended(other), report), 'missed')).toContainEqual(expect.stringMatching(/^Its cause was: .*Written down was: /));
  });

  it('says what was not found, as harm once liquid came out', () => {
    const run = new TestRun();
    expect(texts(told(run, reportOf('leak', { leakedMl: 0 })), 'missed')[0]).toMatch(/was not found\.$/);
    expect(texts(told(run, reportOf('leak', { leakedMl: 30 })), 'harm')[0]).toMatch(/was not found; 30 mL came out/);
  });

  it('counts every second of a dry pump and every millilitre that ran out', () => {
    const report = reportOf('clean', {
      pumpStarts: 3,
      spilledMl: 40,
      happenings: [
        { at: START, what: 'ran-dry', seconds: 2.4 },
        { at: START, what: 'ran-dry', seconds: 1.1 },
        { at: START, what: 'spilled', ml: 40, by: 'turn' },
        { at: START, what: 'too-much-pressure', gaugeKpa: 90 },
      ],
    });
    const found = told(new TestRun(), report);
    expect(found.ranDryS).toBeCloseTo(3.5, 9);
    expect(found.lostMl).toBe(40);
    expect(texts(found, 'harm')).toHaveLength(4);
    expect(texts(told(new TestRun(), reportOf('clean', { pumpStarts: 3 })), 'good')).toContain(
      'The pump never drew air and nothing ran over.',
    );
  });

  it('praises the turn that freed the pocket, or names it', () => {
    const filled = new TestRun().upTo('wet');
    const left = reportOf('pocket', { pocketMl: 50, gasMl: 50 });
    expect(texts(told(filled, left), 'missed')).toContainEqual(expect.stringMatching(/50 mL of air still hang in .*: turn the case/));
    const freed = reportOf('pocket', { pocketMl: 0, gasMl: 0, happenings: [{ at: START, what: 'pocket-freed', ml: 50 }] });
    expect(texts(told(filled, freed), 'good')).toContainEqual(expect.stringMatching(/^The turn .* let the pocket in .* out/));
  });

  it('hears a weak pump only where somebody wrote it down', () => {
    const report = reportOf('weak-pump', { pumpStarts: 4 });
    const silent = new TestRun().upTo('wet');
    expect(texts(told(silent, report), 'missed')).toContainEqual(expect.stringMatching(/Flow stayed below/));
    const noted = new TestRun().upTo('wet').say({ type: 'note', step: 'wet', text: 'flow is low for this pump' });
    expect(texts(told(noted, report), 'good')).toContain('The weak pump was noticed and written down.');
  });

  it('asks why the flow was low: the cause by name, the place by a doubt, or nobody', () => {
    const report = reportOf('kink', { pumpStarts: 4 });
    expect(told(new TestRun(), report).hidden).toContainEqual(expect.stringMatching(/^A kinked tube: /));
    const silent = new TestRun().upTo('wet');
    expect(texts(told(silent, report), 'missed')).toContainEqual(expect.stringMatching(/nobody asked why: a kinked tube/));
    const asked = (cause: string): TestRun => {
      const run = new TestRun().upTo('wet').say({ type: 'fill-trouble', symptom: 'flows-little', text: 'half of what it should be' });
      return run.say({ type: 'fill-trouble-solved', trouble: run.events.at(-1)?.id ?? '', cause, fix: 'done' });
    };
    expect(texts(told(asked('kink'), report), 'good')).toContainEqual(expect.stringMatching(/its cause was named: a kinked tube/));
    expect(texts(told(asked('pump-weak'), report), 'missed')).toContainEqual(expect.stringMatching(/nobody asked why/));
    const doubted = new TestRun().upTo('wet').say({ type: 'doubt', part: report.truth.narrow?.place ?? '', text: 'feels flat' });
    expect(texts(told(doubted, report), 'good')).toContainEqual(expect.stringMatching(/was doubted/));
  });

  it('asks for readings by hand while an instrument was silent', () => {
    const report = reportOf('dropout', {}, { dropout: { kind: 'gauge', fromS: 0, forS: 86_400 } });
    const byHand = new TestRun().upTo('fill');
    expect(texts(told(byHand, report), 'good')).toContainEqual(expect.stringMatching(/readings went on by hand/));
    expect(texts(told(new TestRun(), report), 'missed')).toContainEqual(expect.stringMatching(/pressure gauge was silent/));
  });

  it('says what a shorter way would have been: waiting after a clear air test, starts of the pump', () => {
    const run = new TestRun().upTo('dry').tick('dry').dryTest(30).wait(3600).finish('dry');
    const planned = run.procedure.facts?.fill?.pulses.length ?? 0;
    const report = reportOf('clean', { startsBeforeReturn: planned + 9, happenings: [{ at: START, what: 'circulating' }] });
    const found = told(run, report);
    expect(texts(found, 'saving')).toContainEqual(expect.stringMatching(/The air test was clear .* before it was closed/));
    expect(texts(found, 'saving')).toContainEqual(
      expect.stringMatching(new RegExp(`${planned + 9} pump starts to fill, ${planned} would do`)),
    );
    expect(found.savedS).toBeGreaterThan(3600);
  });
});
