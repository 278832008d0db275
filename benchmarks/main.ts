import { readFileSync } from 'node:fs';
import { adviseDraining } from '../core/physics/draining/advice.js';
import { drainTurned } from '../core/physics/draining/drain.js';
import { nextService, type DueInput } from '../core/workshop/due-dates/due.js';
import { redateAll, type OpenService } from '../core/workshop/due-dates/redate.js';
import { openablePorts } from '../core/physics/draining/openings.js';
import { prepareFlow, pumpSpeeds, solveFlow } from '../core/physics/flow/flow.js';
import { buildNetwork } from '../core/physics/geometry/network.js';
import { STANDING, STANDING_NAMES } from '../core/machine/loop-file/orientation.js';
import { turnNetwork } from '../core/physics/geometry/turned.js';
import { arrange } from '../core/workshop/planning/arrange.js';
import { generatePlan } from '../core/workshop/planning/generatedPlans.js';
import { setAsideImpossible } from '../core/workshop/planning/possible.js';
import { addDays } from '../core/base/units/calendar.js';
import { generateLadder, generateParallelLoop, generateSpatialLoop, lengthenTubes } from '../core/machine/loop-file/generatedLoops.js';
import type { LoopFile } from '../core/machine/loop-file/loopFile.js';
import type { RunEventBody } from '../core/bench/runs/entries/all.js';
import type { RunEvent } from '../core/bench/runs/log.js';
import { RunFold } from '../core/bench/runs/replay.js';
import { refuseEntry } from '../core/bench/runs/rules.js';
import { verdictShares, WRONG_VERDICTS } from '../tests/bench/seededAirTests.js';
import { TestRun } from '../tests/bench/testRun.js';
import { chartLoad, firstLoad } from './firstLoad.js';
import { pageFigures } from './pages.js';
import { readingFigures } from './readings.js';
import { datesOnServer } from './datesOnServer.js';
import { readLoopFile } from '../core/machine/loop-file/loopFileSchema.js';
import { logFigures, measureLog, MEASURE_LOG, type LogWork } from './logs.js';
import { diagnosisFigures } from './diagnosis.js';
import { planQuality } from './drainPlans.js';
import { Epanet, epanetInput } from '../tests/oracle/epanet.js';

/** Speed, as ratios of things measured in one run: the machine's own speed cancels out. */
const water = { densityKgM3: 998.2, viscosityMPaS: 1.0016 };
const say = (text: string): void => void process.stdout.write(`${text}\n`);

/** Half a second of calls before anything counts: both sides are measured as they run in a program that is used. */
const WARM_UP_MS = 500;

/** Median µs of one call; batches long enough for the clock, warmed up first. */
function microseconds(call: () => unknown, batches = 15, batchMs = 40): number {
  const until = Date.now() + WARM_UP_MS;
  while (Date.now() < until) call();
  let count = 1;
  const timed = (): number => {
    const start = process.hrtime.bigint();
    for (let index = 0; index < count; index += 1) call();
    return Number(process.hrtime.bigint() - start) / 1000;
  };
  while (timed() < batchMs * 1000 && count < 1e7) count *= 2;
  const times = Array.from({ length: batches }, () => timed() / count).sort((a, b) => a - b);
  return times[Math.floor(batches / 2)] as number;
}

const percent = (share: number): string => `${(100 * share).toFixed(1)} %`;
const show = (us: number): string => (us < 1000 ? `${us.toFixed(1)} µs` : `${(us / 1000).toFixed(2)} ms`);

function line(what: string, value: string, wanted: string, met: boolean): boolean {
  say(`${met ? 'ok  ' : 'MISS'}  ${what.padEnd(64)} ${value.padStart(14)}   wanted ${wanted}`);
  return met;
}

async function flow(): Promise<boolean[]> {
  const oracle = await Epanet.load();
  const loop = generateParallelLoop();
  // 60 points a curve: coarse enough to be quick to read, fine enough to agree within a few per cent
  const input = epanetInput(loop, water, 1.15);
  say(
    `\nFlow of a parallel loop of ${loop.tubes.length + loop.components.filter(({ kind }) => kind === 'pump' || kind === 'block').length} links`,
  );
  const ours = microseconds(() => solveFlow(loop, { fluid: water, speeds: {}, closed: [] }));
  const theirs = microseconds(() => oracle.withSolved(input, () => null));
  say(`      from loop object to answer ${show(ours)}; the general network solver from its text to an answer ${show(theirs)}`);
  const cold = line('times faster, cold', `${(theirs / ours).toFixed(1)} ×`, 'at least 20 ×', theirs / ours >= 20);

  const prepared = prepareFlow(loop, water);
  const pump = prepared.network.pumpIds[0] as string;
  const speeds = [0.7, 0.75].map((speed) => pumpSpeeds(prepared, { [pump]: speed }));
  let turn = 0;
  const warm = microseconds(() => prepared.solver.solve(speeds[(turn += 1) & 1] as Float64Array));
  const theirWarm = oracle.withSolved(input, (project) => {
    const link = project.getLinkIndex(pump);
    return microseconds(() => oracle.resolve(project, link, (turn += 1) & 1 ? 0.7 : 0.75));
  });
  say(`      after a change of pump speed ${show(warm)}; the general solver's initH + runH ${show(theirWarm)}`);
  const again = line('times faster, warm', `${(theirWarm / warm).toFixed(1)} ×`, 'at least 2 ×', theirWarm / warm >= 2);

  const [small, large] = [generateLadder(50), generateLadder(400)].map((ladder) => ({
    links: ladder.components.length + ladder.tubes.length,
    us: microseconds(() => solveFlow(ladder, { fluid: water, speeds: {}, closed: [] }), 7),
  })) as [{ links: number; us: number }, { links: number; us: number }];
  const growth = large.us / small.us / (large.links / small.links);
  say(`\n      ${small.links} links ${show(small.us)}; ${large.links} links ${show(large.us)}`);
  const linear = line('time per link, large against small network', `${growth.toFixed(2)} ×`, 'at most 2 × (about linear)', growth <= 2);
  return [cold, again, linear];
}

function draining(): boolean[] {
  // a loop of the usual parts with its tubes lengthened until it has 5 000 nodes
  const loop: LoopFile = lengthenTubes(generateSpatialLoop(12), 5000);
  const network = buildNetwork(loop);
  say(`\nDraining of a loop of ${network.size} nodes`);
  const ports = openablePorts(loop);
  const setup = { open: ports.slice(1, 3), drains: ports.slice(0, 1), closed: [] };
  const slowest = STANDING_NAMES.reduce((most, standing) => {
    const us = microseconds(() => drainTurned(turnNetwork(network, STANDING[standing]), setup), 5);
    return Math.max(most, us);
  }, 0);
  const frame = line('one orientation, turned and drained', show(slowest), 'under 16 ms', slowest < 16_000);
  const advice = microseconds(() => adviseDraining(loop, network), 3, 1);
  const search = line('search for the advised plan', show(advice), 'under 1 s', advice < 1e6);
  const { loops, worst, median, within, timeShare } = planQuality();
  say(`\nAdvised plans of ${loops} loops against a search 200 plans wide, in ${percent(timeShare)} of its time`);
  say(`      left more than by the wide search, of the loop: median ${percent(median)}, worst ${percent(worst)}`);
  const good = line('plans within 3 % of the loop', `${within} of ${loops}`, `all ${loops}`, within === loops);
  return [frame, search, good];
}

/** A workshop's dates after a change of policy: ten thousand open services. */
function dates(): boolean[] {
  const open = Array.from({ length: 10_000 }, (_, index): OpenService => {
    const from: DueInput = { filledOn: addDays('2025-01-01', index % 600), coolantClass: 'clear', productName: 'Clear', sheetLifeMonths: (index % 24) + 1, policy: 'six-months', meanCoolantC: 33, hoursPerDay: 5 }; // prettier-ignore
    const { dueOn, reason, clocks } = nextService(from);
    return { id: String(index), dueOn, reason, clocks, postponed: index % 7 === 0 ? 1 : 0, from: { ...from, policy: 'twelve-months' } };
  });
  say('\nDates of 10 000 systems');
  const us = microseconds(() => redateAll(open), 3, 1);
  return [line('all computed anew after a change of policy', show(us), 'under 2 s', us < 2e6)];
}

/** The same on the server: read, computed, written, with meters, wear, seasons and dust. */
async function storedDates(): Promise<boolean[]> {
  const found = await datesOnServer(10_000);
  say(`\nDates of ${found.systems} systems in the database, their dust and meters with them`);
  const all = line(`all ${found.moved} moved by a change of policy`, show(found.allMs * 1000), 'under 2 s', found.allMs < 2000);
  const nothing = line('looked at where nothing moves', show(found.nothingMs * 1000), 'under 2 s', found.nothingMs < 2000);
  const share = found.oneMs / found.allMs;
  return [all, nothing, line('one machine against all of them', `${(100 * share).toFixed(1)} %`, 'at most 5 %', share <= 0.05)];
}

/** The planner's first whole plan, and how far from the best it can be at most. */
function planning(): boolean[] {
  const problem = generatePlan(1, { jobs: 60, benches: 4, technicians: 3, days: 60, mostSteps: 5 });
  say(`\nPlan of ${problem.jobs.length} jobs on 4 benches by 3 technicians`);
  const us = microseconds(() => arrange(problem, { isOver: () => true }), 3, 1);
  const first = line('first whole plan, with its bound', show(us), 'under 1 s', us < 1e6);
  const until = Date.now() + 1000;
  const plan = arrange(problem, { isOver: () => Date.now() >= until });
  const gap = plan ? (plan.weightedLateMinutes - plan.lowerBound) / Math.max(1, plan.weightedLateMinutes) : 1;
  say(`      after 1 s of search: ${Math.round(plan?.weightedLateMinutes ?? 0)} weighted late minutes, no plan below ${Math.round(plan?.lowerBound ?? 0)} (gap ${Math.round(100 * gap)} %)`); // prettier-ignore
  const ratios = [1, 2, 3].map((seed) => {
    const full = generatePlan(seed, { jobs: 50, benches: 4, technicians: 3, days: 28, mostSteps: 5 });
    const { problem: possible } = setAsideImpossible(full);
    const end = Date.now() + 6000;
    const found = arrange(possible, { isOver: () => Date.now() >= end });
    return found ? (found.weightedLateMinutes / Math.max(1, found.lowerBound)).toFixed(2) : 'no plan';
  });
  say(`      50 jobs in four full weeks, after 6 s: cost ÷ bound ${ratios.join(', ')}`);
  return [first];
}

/** What one more entry of a run costs on the server and on the device, early in a run and late in a long one. */
function entries(): boolean[] {
  const start = new TestRun();
  const { procedure, nowMs } = start;
  const test = procedure.steps.find(({ kind }) => kind === 'dry-test')?.id as string;
  const bodyOf = (index: number): RunEventBody =>
    index % 2 === 0
      ? { type: 'dry-reading', gaugeKpa: 50 - index / 1e5, tempC: 20 }
      : { type: 'note', step: test, text: `looked at joint ${index}` };
  const log = Array.from({ length: 5_100 }, (_, index): RunEvent => ({ id: `e${index}`, seq: index + 1, at: new Date(nowMs + index).toISOString(), by: 'Tess', body: bodyOf(index) })); // prettier-ignore
  const MORE = 100;
  /** median µs of one entry behind `length` others: refused or not, folded in, shown */
  const behind = (length: number, shown: boolean): number => {
    const times = Array.from({ length: 15 }, () => {
      const fold = new RunFold(procedure).sync(log.slice(0, length));
      const from = process.hrtime.bigint();
      for (const event of log.slice(length, length + MORE)) {
        refuseEntry(procedure, fold.state, fold.events, event.body, nowMs + 1e6);
        fold.push(event);
        if (shown) fold.snapshot();
      }
      return Number(process.hrtime.bigint() - from) / 1000 / MORE;
    });
    return times.sort((a, b) => a - b)[7] as number;
  };
  say('\nOne more entry of a run');
  const compare = (what: string, shown: boolean): boolean => {
    behind(100, shown);
    const [early, late] = [behind(100, shown), behind(5000, shown)];
    say(`      ${what}: behind 100 entries ${show(early)}, behind 5 000 ${show(late)}`);
    return line(`${what}, behind 5 000 against behind 100`, `${(late / early).toFixed(2)} ×`, 'at most 1.5 ×', late / early <= 1.5);
  };
  return [compare('on the server', false), compare('on the device, with a new state for the screen', true)];
}

/** How often an air test that is looked at after every third reading ends in a wrong verdict: over a thousand seeds each. */
function verdicts(): boolean[] {
  say('\nAir tests, a thousand of each');
  return WRONG_VERDICTS.map(([times, wrong]) => {
    const shares = verdictShares(times, 1000);
    const [bad, open] = [shares[wrong] ?? 1, shares['not-yet'] ?? 1];
    const met = bad < 0.05 && open < 0.05;
    return line(`wrong "${wrong}" at ${times} × the limit; no verdict in an hour`, `${(100 * bad).toFixed(1)} %; ${(100 * open).toFixed(1)} %`, 'under 5 %', met); // prettier-ignore
  });
}

/** Hidden faults found again, on two thousand machines read with their errors. */
function diagnoses(): boolean[] {
  const loop = readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));
  const found = diagnosisFigures(loop, water, 2000, true);
  say(`\nHidden faults of ${found.machines} machines, coolant and flow measured, nothing seen; ${show(found.msEach * 1000)} each`);
  const first = line(
    'true cause first, dust with fan and pump with kink as one',
    percent(found.first),
    'at least 85 %',
    found.first >= 0.85,
  );
  const three = line('true cause in the first three', percent(found.firstThree), 'at least 95 %', found.firstThree >= 0.95);
  const sure = line('said against true, worst tenth of 200 cases or more', `${(100 * found.worstGap).toFixed(1)} points`, 'at most 5', found.worstGap <= 0.05); // prettier-ignore
  const bare = diagnosisFigures(loop, water, 400, false);
  say(`      with parts alone: first ${percent(bare.first)}, first three ${percent(bare.firstThree)}, and it says so: ${percent(bare.claimed)} of its first`); // prettier-ignore
  return [first, three, sure];
}

async function logs(): Promise<boolean[]> {
  const { lines, bytes, runs } = await logFigures(1_000_000);
  const ratios = runs.map(({ readS, libraryS }) => readS / libraryS).sort((a, b) => a - b);
  const [middle, last] = [ratios[Math.floor(ratios.length / 2)] as number, runs.at(-1)];
  const peak = Math.max(...runs.map(({ peakBytes }) => peakBytes));
  say(`\nA log of ${lines} lines, ${Math.round(bytes / 1e6)} MB, ${last?.days} days with a reading: ${last?.readS.toFixed(1)} s; the CSV library alone ${last?.libraryS.toFixed(1)} s`); // prettier-ignore
  say(`      in ${runs.length} pairs of fresh processes: ${ratios.map((ratio) => ratio.toFixed(2)).join(', ')} × the library`);
  return [
    line('reading a log against the CSV library alone, middle of them', `${middle.toFixed(2)} ×`, 'at most 3 ×', middle <= 3),
    line('memory that it takes', `${Math.round(peak / 1e6)} MB`, 'at most 300 MB', peak <= 300e6),
  ];
}

/** What instruments send, from the queue to the table. */
async function readings(): Promise<boolean[]> {
  const { readings: count, keptMs, copyMs } = await readingFigures();
  const share = copyMs / keptMs;
  say(
    `\n${count} readings of four benches, checked, numbered and told: ${Math.round(keptMs)} ms; COPY of the same rows ${Math.round(copyMs)} ms`,
  );
  return [line('readings kept, of the pace of COPY', percent(share), 'at least 30 %', share >= 0.3)];
}

/** Pages of a full workshop, and what the browser loads for the first of them. */
async function size(): Promise<boolean[]> {
  const { machines, fills, growS, pages, crowd, serverBytes } = await pageFigures(10_000);
  say(`\nPages of ${machines} machines with ${fills} fills (grown in ${growS.toFixed(1)} s); 95 of 100 answers are faster`);
  const met = pages.map(({ name, kilobytes, p95Ms, sqlP95Ms }) => {
    const most = 3 * sqlP95Ms + 15;
    return line(`${name}: its SQL alone ${sqlP95Ms.toFixed(1)} ms, ${kilobytes.toFixed(0)} kB`, `${p95Ms.toFixed(1)} ms`, `at most 3 × the SQL + 15 ms: ${most.toFixed(0)} ms`, p95Ms <= most && kilobytes <= 200); // prettier-ignore
  });
  const kilo = (page: string): number => firstLoad(page) / 1000;
  return [
    ...met,
    line(`${crowd.users} people, each a page every two seconds: ${crowd.asked} answers, ${crowd.failed} failed`, `${crowd.p95Ms.toFixed(0)} ms`, 'at most 150 ms, none failed', crowd.p95Ms <= 150 && crowd.failed === 0), // prettier-ignore
    line('memory of the server, at most', `${Math.round(serverBytes / 1e6)} MB`, 'under 400 MB', serverBytes < 400e6),
    ...['TodayView', 'SystemsView', 'SignInView'].map((page) =>
      line(`first load of ${page}, scripts and styles, packed`, `${kilo(page).toFixed(0)} kB`, 'at most 200 kB', kilo(page) <= 200),
    ),
    line('a chart, where one is seen', `${(chartLoad() / 1000).toFixed(0)} kB`, 'nowhere else', true),
  ];
}

if (process.argv[2] === MEASURE_LOG) {
  process.send?.(await measureLog(process.argv[3] as LogWork, process.argv[4] as string));
  process.exit(0);
}

if (process.argv[2] === 'size') {
  const met = [...(await readings()), ...(await size())];
  process.exit(met.every(Boolean) ? 0 : 1);
}

say('Lavacrum bench: ratios in one run');
const results = [
  ...entries(),
  ...(await flow()),
  ...draining(),
  ...dates(),
  ...(await storedDates()),
  ...planning(),
  ...verdicts(),
  ...diagnoses(),
  ...(await logs()),
  ...(await readings()),
  ...(await size()),
];
say(`\n${results.filter(Boolean).length} met, ${results.filter((met) => !met).length} missed`);
process.exitCode = results.every(Boolean) ? 0 : 1;
