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
import { measured, microseconds, percent, SECTION, showUs, timesLonger, type Figure, type Measured, type Section } from './figures.js';
import { chartLoad, firstLoad } from './firstLoad.js';
import { pageFigures } from './pages.js';
import { manyFigures } from './manyEntries.js';
import { readingFigures } from './readings.js';
import { datesOnServer } from './datesOnServer.js';
import { readLoopFile } from '../core/machine/loop-file/loopFileSchema.js';
import { logFigures, measureLog, MEASURE_LOG, type LogWork } from './logs.js';
import { diagnosisFigures } from './diagnosis.js';
import { planQuality } from './drainPlans.js';
import { Epanet, epanetInput } from '../tests/oracle/epanet.js';

/** Speed, as ratios of things measured in one process; each process measures one thing alone. */
const water = { densityKgM3: 998.2, viscosityMPaS: 1.0016 };

async function flow(): Promise<Section> {
  const oracle = await Epanet.load();
  const loop = generateParallelLoop();
  // 60 points a curve: coarse enough to be quick to read, fine enough to agree within a few per cent
  const input = epanetInput(loop, water, 1.15);
  const links = loop.tubes.length + loop.components.filter(({ kind }) => kind === 'pump' || kind === 'block').length;
  const cold = timesLonger(
    () => oracle.withSolved(input, () => null),
    () => solveFlow(loop, { fluid: water, speeds: {}, closed: [] }),
  );

  const prepared = prepareFlow(loop, water);
  const pump = prepared.network.pumpIds[0] as string;
  const speeds = [0.7, 0.75].map((speed) => pumpSpeeds(prepared, { [pump]: speed }));
  let turn = 0;
  const warm = oracle.withSolved(input, (project) => {
    const link = project.getLinkIndex(pump);
    return timesLonger(
      () => oracle.resolve(project, link, (turn += 1) & 1 ? 0.7 : 0.75),
      () => prepared.solver.solve(speeds[(turn += 1) & 1] as Float64Array),
    );
  });
  const [small, large] = [generateLadder(50), generateLadder(400)].map((ladder) => ({
    links: ladder.components.length + ladder.tubes.length,
    us: microseconds(() => solveFlow(ladder, { fluid: water, speeds: {}, closed: [] }), 7),
  })) as [{ links: number; us: number }, { links: number; us: number }];
  return {
    told: [
      `Flow of a parallel loop of ${links} links`,
      `      from loop object to answer ${showUs(cold.shorterUs)}; the general network solver from its text to an answer ${showUs(cold.longerUs)}`,
      `      after a change of pump speed ${showUs(warm.shorterUs)}; the general solver's initH + runH ${showUs(warm.longerUs)}`,
      `      ${small.links} links ${showUs(small.us)}; ${large.links} links ${showUs(large.us)}`,
    ],
    figures: [
      { what: 'times faster, cold', value: cold.times, shown: 'times', least: 20, judged: 'worst' },
      { what: 'times faster, warm', value: warm.times, shown: 'times', least: 2 },
      {
        what: 'time per link, large against small network',
        value: large.us / small.us / (large.links / small.links),
        shown: 'times',
        most: 2,
      },
    ],
  };
}

function draining(): Section {
  // a loop of the usual parts with its tubes lengthened until it has 5 000 nodes
  const loop: LoopFile = lengthenTubes(generateSpatialLoop(12), 5000);
  const network = buildNetwork(loop);
  const ports = openablePorts(loop);
  const setup = { open: ports.slice(1, 3), drains: ports.slice(0, 1), closed: [] };
  const slowest = STANDING_NAMES.reduce((most, standing) => {
    const us = microseconds(() => drainTurned(turnNetwork(network, STANDING[standing]), setup), 5);
    return Math.max(most, us);
  }, 0);
  const advice = microseconds(() => adviseDraining(loop, network), 3, 1);
  return {
    told: [`Draining of a loop of ${network.size} nodes`],
    figures: [
      { what: 'one orientation, turned and drained', value: slowest, shown: 'us', most: 16_000 },
      { what: 'search for the advised plan', value: advice, shown: 'us', most: 1e6 },
    ],
  };
}

/** How good advised plans are: the same in every process. */
function drainPlans(): Section {
  const { loops, worst, median, within, timeShare } = planQuality();
  return {
    told: [
      `Advised plans of ${loops} loops against a search 200 plans wide, in ${percent(timeShare)} of its time`,
      `      left more than by the wide search, of the loop: median ${percent(median)}, worst ${percent(worst)}`,
    ],
    figures: [{ what: `plans within 3 % of the loop, of ${loops}`, value: within, shown: 'count', least: loops }],
  };
}

/** A workshop's dates after a change of policy: ten thousand open services. */
function dates(): Section {
  const open = Array.from({ length: 10_000 }, (_, index): OpenService => {
    const from: DueInput = { filledOn: addDays('2025-01-01', index % 600), coolantClass: 'clear', productName: 'Clear', sheetLifeMonths: (index % 24) + 1, policy: 'six-months', meanCoolantC: 33, hoursPerDay: 5 }; // prettier-ignore
    const { dueOn, reason, clocks } = nextService(from);
    return { id: String(index), dueOn, reason, clocks, postponed: index % 7 === 0 ? 1 : 0, from: { ...from, policy: 'twelve-months' } };
  });
  const us = microseconds(() => redateAll(open), 3, 1);
  return { told: ['Dates of 10 000 systems'], figures: [{ what: 'all computed anew after a change of policy', value: us, shown: 'us', most: 2e6 }] }; // prettier-ignore
}

/** The same on the server: read, computed, written, with meters, wear, seasons and dust. */
async function storedDates(): Promise<Section> {
  const found = await datesOnServer(10_000);
  return {
    told: [`Dates of ${found.systems} systems in the database, their dust and meters with them`],
    figures: [
      { what: `all ${found.moved} moved by a change of policy`, value: found.allMs * 1000, shown: 'us', most: 2e6 },
      { what: 'looked at where nothing moves', value: found.nothingMs * 1000, shown: 'us', most: 2e6 },
      { what: 'one machine against all of them', value: found.oneMs / found.allMs, shown: 'share', most: 0.05 },
    ],
  };
}

/** The planner's first whole plan, and how far from the best it can be at most. */
function planning(): Section {
  const problem = generatePlan(1, { jobs: 60, benches: 4, technicians: 3, days: 60, mostSteps: 5 });
  const us = microseconds(() => arrange(problem, { isOver: () => true }), 3, 1);
  const until = Date.now() + 1000;
  const plan = arrange(problem, { isOver: () => Date.now() >= until });
  const gap = plan ? (plan.weightedLateMinutes - plan.lowerBound) / Math.max(1, plan.weightedLateMinutes) : 1;
  const ratios = [1, 2, 3].map((seed) => {
    const full = generatePlan(seed, { jobs: 50, benches: 4, technicians: 3, days: 28, mostSteps: 5 });
    const { problem: possible } = setAsideImpossible(full);
    const end = Date.now() + 6000;
    const found = arrange(possible, { isOver: () => Date.now() >= end });
    return found ? (found.weightedLateMinutes / Math.max(1, found.lowerBound)).toFixed(2) : 'no plan';
  });
  return {
    told: [
      `Plan of ${problem.jobs.length} jobs on 4 benches by 3 technicians`,
      `      after 1 s of search: ${Math.round(plan?.weightedLateMinutes ?? 0)} weighted late minutes, no plan below ${Math.round(plan?.lowerBound ?? 0)} (gap ${Math.round(100 * gap)} %)`, // prettier-ignore
      `      50 jobs in four full weeks, after 6 s: cost ÷ bound ${ratios.join(', ')}`,
    ],
    figures: [{ what: 'first whole plan, with its bound', value: us, shown: 'us', most: 1e6 }],
  };
}

/** What one more entry of a run costs on the server and on the device, early in a run and late in a long one. */
function entries(): Section {
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
  const told = ['One more entry of a run'];
  const compare = (what: string, shown: boolean): Figure => {
    behind(100, shown);
    const [early, late] = [behind(100, shown), behind(5000, shown)];
    told.push(`      ${what}: behind 100 entries ${showUs(early)}, behind 5 000 ${showUs(late)}`);
    return { what: `${what}, behind 5 000 against behind 100`, value: late / early, shown: 'times', most: 1.5 };
  };
  return { told, figures: [compare('on the server', false), compare('on the device, with a new state for the screen', true)] };
}

/** How often an air test that is looked at after every third reading ends in a wrong verdict: over a thousand seeds each. */
function verdicts(): Section {
  return {
    told: ['Air tests, a thousand of each'],
    figures: WRONG_VERDICTS.flatMap(([times, wrong]): Figure[] => {
      const shares = verdictShares(times, 1000);
      return [
        { what: `wrong "${wrong}" at ${times} × the limit`, value: shares[wrong] ?? 1, shown: 'share', most: 0.05 },
        { what: `no verdict in an hour at ${times} × the limit`, value: shares['not-yet'] ?? 1, shown: 'share', most: 0.05 },
      ];
    }),
  };
}

/** Hidden faults found again, on two thousand machines read with their errors. */
function diagnoses(): Section {
  const loop = readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));
  const found = diagnosisFigures(loop, water, 2000, true);
  const bare = diagnosisFigures(loop, water, 400, false);
  return {
    told: [
      `Hidden faults of ${found.machines} machines, coolant and flow measured, nothing seen; ${showUs(found.msEach * 1000)} each`,
      `      with parts alone: first ${percent(bare.first)}, first three ${percent(bare.firstThree)}, and it says so: ${percent(bare.claimed)} of its first`,
    ],
    figures: [
      { what: 'true cause first, dust with fan and pump with kink as one', value: found.first, shown: 'share', least: 0.85 },
      { what: 'true cause in the first three', value: found.firstThree, shown: 'share', least: 0.95 },
      { what: 'said against true, worst tenth of 200 cases or more', value: found.worstGap, shown: 'points', most: 0.05 },
    ],
  };
}

async function logs(): Promise<Section> {
  const { lines, bytes, runs } = await logFigures(1_000_000);
  const ratios = runs.map(({ readS, libraryS }) => readS / libraryS).sort((a, b) => a - b);
  const [middle, last] = [ratios[Math.floor(ratios.length / 2)] as number, runs.at(-1)];
  return {
    told: [
      `A log of ${lines} lines, ${Math.round(bytes / 1e6)} MB, ${last?.days} days with a reading: ${last?.readS.toFixed(1)} s; the CSV library alone ${last?.libraryS.toFixed(1)} s`,
      `      in ${runs.length} pairs of fresh processes: ${ratios.map((ratio) => ratio.toFixed(2)).join(', ')} × the library`,
    ],
    figures: [
      { what: 'reading a log against the CSV library alone, middle of them', value: middle, shown: 'times', most: 3 },
      { what: 'memory that it takes', value: Math.max(...runs.map(({ peakBytes }) => peakBytes)), shown: 'MB', most: 300e6 },
    ],
  };
}

/** What instruments send, from the queue to the table. */
async function readings(): Promise<Section> {
  const { readings: count, keptMs, copyMs } = await readingFigures();
  return {
    told: [
      `${count} readings of four benches, checked, numbered and told: ${Math.round(keptMs)} ms; COPY of the same rows ${Math.round(copyMs)} ms`,
    ],
    figures: [{ what: 'readings kept, of the pace of COPY', value: copyMs / keptMs, shown: 'share', least: 0.3 }],
  };
}

/** A million entries in one workshop, against a tenth of it. */
async function many(): Promise<Section> {
  const tenth = await manyFigures(100_000, 1000);
  const whole = await manyFigures(1_000_000, 10_000);
  const works = [
    ['replay of one run of 1 000 entries, in the whole against in a tenth', 'replayMs', 1],
    ['the night of the whole against ten of a tenth', 'nightMs', 10],
    ['dates of the whole against ten of a tenth', 'redateMs', 10],
    ['upgrade of the whole against ten of a tenth', 'migrateMs', 10],
  ] as const;
  return {
    told: [
      `${whole.entries} entries of runs and ${whole.machines} machines in one workshop, against a tenth of both`,
      ...works.map(([, of]) => `      ${of.replace('Ms', '')}: ${showUs(1000 * tenth[of])}, then ${showUs(1000 * whole[of])}`),
    ],
    figures: works.map(([what, of, by]): Figure => ({ what, value: whole[of] / tenth[of] / by, shown: 'times', most: 1.5 })),
  };
}

/** Pages of a full workshop, and a crowd that asks for them. */
async function pages(): Promise<Section> {
  const {
    machines,
    fills,
    growS,
    pages: each,
    crowd,
    serverBytes,
  } = await pageFigures(Number(process.env.LAVACRUM_BENCH_MACHINES ?? 10_000));
  return {
    told: [
      `Pages of ${machines} machines with ${fills} fills (grown in ${growS.toFixed(1)} s); 95 of 100 answers are faster`,
      ...each.map(
        ({ name, kilobytes, p95Ms, sqlP95Ms }) =>
          `      ${name}: ${p95Ms.toFixed(1)} ms, its SQL alone ${sqlP95Ms.toFixed(1)} ms, ${kilobytes.toFixed(0)} kB`,
      ),
      `      ${crowd.users} people, each a page every two seconds: ${crowd.asked} answers`,
    ],
    figures: [
      ...each.map(({ name, p95Ms, sqlP95Ms }): Figure => ({
        what: `${name}, of 3 × its SQL + 15 ms`,
        value: p95Ms / (3 * sqlP95Ms + 15),
        shown: 'share',
        most: 1,
      })),
      { what: 'the largest page', value: 1000 * Math.max(...each.map(({ kilobytes }) => kilobytes)), shown: 'kB', most: 200e3 },
      { what: 'a page of the crowd', value: 1000 * crowd.p95Ms, shown: 'us', most: 150e3 },
      { what: 'pages that failed', value: crowd.failed, shown: 'count', most: 0 },
      { what: 'memory of the server, at most', value: serverBytes, shown: 'MB', most: 400e6 },
    ],
  };
}

/** What the browser loads before anything is pressed. */
function loads(): Section {
  return {
    told: ['First load, scripts and styles as they travel'],
    figures: [
      ...['TodayView', 'SystemsView', 'SignInView'].map((page): Figure => ({
        what: page,
        value: firstLoad(page),
        shown: 'kB',
        most: 200e3,
      })),
      { what: 'a chart, where one is seen', value: chartLoad(), shown: 'kB', most: 200e3 },
    ],
  };
}

const SECTIONS: Readonly<Record<string, Measured>> = {
  entries: { processes: 3, measure: entries },
  flow: { processes: 5, measure: flow },
  draining: { processes: 3, measure: draining },
  plans: { processes: 1, measure: drainPlans },
  dates: { processes: 3, measure: dates },
  stored: { processes: 3, measure: storedDates },
  planning: { processes: 1, measure: planning },
  verdicts: { processes: 1, measure: verdicts },
  diagnoses: { processes: 1, measure: diagnoses },
  logs: { processes: 1, measure: logs },
  readings: { processes: 3, measure: readings },
  many: { processes: 1, measure: many },
  pages: { processes: 1, measure: pages },
  loads: { processes: 1, measure: loads },
};

const [first = '', second = '', third = ''] = process.argv.slice(2);
if (first === MEASURE_LOG) {
  process.send?.(await measureLog(second as LogWork, third));
  process.exit(0);
}
if (first === SECTION) {
  const section = await (SECTIONS[second] as Measured).measure();
  process.send?.(section, () => process.exit(0));
} else {
  const asked = process.argv.slice(2);
  const unknown = asked.find((name) => !Object.hasOwn(SECTIONS, name));
  if (unknown !== undefined) {
    process.stderr.write(`There is no ${unknown} to measure; there are ${Object.keys(SECTIONS).join(', ')}.\n`);
    process.exit(1);
  }
  process.stdout.write('Lavacrum bench: ratios of things measured in one process; the middle of several fresh ones, and their spread\n');
  let [met, missed] = [0, 0];
  for (const [name, section] of Object.entries(SECTIONS)) {
    if (asked.length > 0 && !asked.includes(name)) continue;
    const found = await measured(name, section);
    met += found.met;
    missed += found.missed;
  }
  process.stdout.write(`\n${met} met, ${missed} missed\n`);
  process.exitCode = missed === 0 ? 0 : 1;
}
