import { describe, expect, it } from 'vitest';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { WATER } from '../../machine/liquids/fluids.js';
import { DEFAULT_SCHOOLS } from '../../physics/leak-testing/schools.js';
import type { JobKind } from '../../workshop/job-kinds/kinds.js';
import type { ItemFindings } from '../inspection/grade.js';
import { buildProcedure } from '../procedures/buildProcedure.js';
import type { RunEventBody } from '../runs/entries/all.js';
import { serviceFacts } from '../services/serviceFacts.js';
import { SimulatedBench } from '../simulated-bench/bench.js';
import type { BenchReport } from '../simulated-bench/report.js';
import { drawTruth, type Scenario } from '../simulated-bench/truth.js';
import { debrief, type Debrief } from './debrief.js';

const START = '2026-03-10T09:00:00.000Z';
const SOUND: ItemFindings = { deposit: 'none', surface: 'sound', seal: null, worn: false, touch: null, wall: null, text: '' };

function practised(kind: JobKind, scenario: Scenario = 'clean', seed = 11) {
  const loop = usualLoop();
  const service = serviceFacts({ loop, kind, jobId: '', filled: true, part: null, old: null, mixes: [] });
  const procedure = buildProcedure({ loop, schools: DEFAULT_SCHOOLS, order: null, coolantName: null, liquid: WATER, service });
  const report = new SimulatedBench(loop, drawTruth(loop, seed, scenario, kind), WATER, Date.parse(START), seed, kind).report();
  /** entries as they are, whatever rule would stand against them: a debrief tells what was done */
  const told = (entries: readonly RunEventBody[], more: Partial<BenchReport> = {}): Debrief => {
    const events = entries.map((body, index) => ({ id: `e${index}`, seq: index + 1, at: new Date(Date.parse(START) + 60_000 * index).toISOString(), by: 'x', body })); // prettier-ignore
    return debrief({ procedure, events, report: { ...report, ...more }, startedAt: START, endedAt: new Date(Date.parse(START) + 3.6e6).toISOString() }); // prettier-ignore
  };
  return { procedure, service, report, told, odd: report.truth.finding };
}
const texts = ({ lines }: Debrief, kind: string): string[] => lines.filter((line) => line.kind === kind).map(({ text }) => text);
const drained = (volumeMl: number): RunEventBody => ({ type: 'drained', step: 'drain', volumeMl, how: 'jug', wasteId: null });
const rinse: RunEventBody = { type: 'rinse', step: 'rinse', liquid: 'distilled', volumeMl: 600 };
const rinsedOut: RunEventBody = { type: 'drained', step: 'rinse', volumeMl: 600, how: 'jug', wasteId: null };
const clear: RunEventBody = { type: 'water', step: 'rinse', ph: 6.9, clarity: 'clear' };
const looked = (item: string, findings: Partial<ItemFindings> = {}): RunEventBody => ({ type: 'inspected', step: 'inspect', item, findings: { ...SOUND, ...findings } }); // prettier-ignore
const pour: RunEventBody = { type: 'pour', volumeMl: 700 };

describe('the debrief of a practised service', () => {
  it('holds what was written down against what ran into the jug', () => {
    const { told } = practised('drain-refill');
    expect(texts(told([drained(612)], { caughtMl: 610 }), 'good')).toContainEqual(expect.stringMatching(/612 mL written down of 610 mL/));
    expect(texts(told([drained(500)], { caughtMl: 610 }), 'missed')).toContain('610 mL ran into the jug; 500 mL were written down.');
    expect(texts(told([], { caughtMl: 610 }), 'missed')).toContainEqual(expect.stringMatching(/none of it was written down/));
    expect(texts(told([]), 'missed')).toEqual([]);
  });

  it('says how much of what is inside is the old liquid, where it was to be thinned', () => {
    const { told } = practised('flush-refill');
    expect(texts(told([pour], { oldMl: 16, insideMl: 800 }), 'good')).toContainEqual(expect.stringMatching(/^2(\.0)? % .* at most 5(\.0)? %/)); // prettier-ignore
    expect(texts(told([pour], { oldMl: 120, insideMl: 800 }), 'missed')).toContainEqual(expect.stringMatching(/^15 % of what is inside/));
    const drain = practised('drain-refill');
    expect(JSON.stringify(drain.told([pour], { oldMl: 120, insideMl: 800 }).lines)).not.toMatch(/old liquid/);
  });

  it('counts a rinse too many only once book and water were content', () => {
    const { told } = practised('flush-refill');
    const once = [drained(790), rinse, rinsedOut, clear];
    expect(texts(told(once), 'saving')).toEqual([]);
    const more = told([...once, rinse, rinsedOut, clear, rinse, rinsedOut, clear]);
    expect(texts(more, 'saving')).toContainEqual(expect.stringMatching(/more than the book and the water asked for/));
    expect(more.savedS).toBeGreaterThan(0);
  });

  it('reads the inspection sheet: what was found, what was not, and what was sound all along', () => {
    const { told, odd, service } = practised('strip-clean', 'deposit');
    const at = odd?.item ?? '';
    const other = service.items.find(({ id }) => id !== at)?.id ?? '';
    const found = looked(at, { deposit: 'layer' });
    expect(told([]).hidden).toContainEqual(expect.stringMatching(/^Deposit: /));
    expect(texts(told([found]), 'good')).toContainEqual(expect.stringMatching(/^The sheet says what was wrong with /));
    expect(texts(told([looked(at)]), 'missed')).toContainEqual(expect.stringMatching(/not as sound as the sheet says/));
    expect(texts(told([looked(other)]), 'missed')).toContainEqual(expect.stringMatching(/was not looked at/));
    expect(texts(told([found, looked(other, { surface: 'pitted' })]), 'missed')).toContainEqual(expect.stringMatching(/was sound; the sheet says otherwise/)); // prettier-ignore
    expect(texts(told([found, pour], { soaks: 0 }), 'missed')).toContainEqual(expect.stringMatching(/still gritty/));
    expect(texts(told([found, pour], { soaks: 2, oldMl: 0 }), 'missed')).toEqual([]);
  });

  it('calls it harm where a part at its end goes back in', () => {
    const { told, odd } = practised('strip-clean', 'spent', 3);
    const at = odd?.item ?? '';
    const seen = looked(at, odd?.findings);
    const swapped: RunEventBody = { type: 'swapped', step: 'swap', item: at, action: 'replaced', text: 'new one', heldMl: 0 };
    expect(texts(told([seen, pour]), 'harm')).toContainEqual(expect.stringMatching(/went back in/));
    expect(texts(told([seen, swapped, pour]), 'harm')).toEqual([]);
    expect(texts(told([seen, swapped, pour]), 'good')).toContainEqual(expect.stringMatching(/^The sheet says what was wrong/));
  });

  it('tells of a leak that was brought along that it was found, and never that not a drop came out', () => {
    const { told, report } = practised('leak-repair', 'leak');
    const leak: RunEventBody = { type: 'leak', at: report.truth.leak?.place ?? '', when: 'after-hours', amount: 'drip', text: '' };
    const good = texts(told([leak], { leakMended: true }), 'good');
    expect(good).toContainEqual(expect.stringMatching(/was found\.$/));
    expect(good.join(' ')).not.toMatch(/not a drop/);
  });
});
