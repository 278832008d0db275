import { seededRandom } from '../../base/random/random.js';
import { mayMix, type Miscible } from '../../machine/liquids/mixing.js';
import { WATER } from '../../machine/liquids/fluids.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import type { LoopContents } from '../../physics/live-book/loopContents.js';
import { DEFAULT_SCHOOLS } from '../../physics/leak-testing/schools.js';
import type { JobKind } from '../../workshop/job-kinds/kinds.js';
import { generateChange } from '../../machine/loop-change/generatedChanges.js';
import { unitOf, UNIT_SCHOOLS } from '../commissioning/testedAlone.js';
import { buildProcedure, type ProcedureInput } from '../procedures/buildProcedure.js';
import { serviceFacts } from '../services/serviceFacts.js';
import { Technician, TRIAL_COOLANT, type Played } from './technician.js';
import { TrialBench } from './trialBench.js';

/** What the led technician is put through, one after the other on one machine. */
export const TRIAL_PROCEDURES = [
  'commissioning',
  'top-up',
  'drain-refill',
  'flush-refill',
  'strip-clean',
  'conversion',
  'leak-repair',
  'part-replacement',
  'partial-drain',
  'loop-change',
  'unit-test',
] as const;
export type TrialProcedure = (typeof TRIAL_PROCEDURES)[number];

/** One procedure's figures, or all of them (design, "How it is proven"). */
export interface TrialFigures {
  readonly runs: number;
  readonly ended: number;
  readonly dead_ends: number;
  readonly over_lid_runs: number;
  readonly over_lid_worst_ml: number;
  readonly unwarned_ml: number;
  readonly dry_pump_worst_s: number;
  readonly contradictions: number;
  /** share of looks at a step's end at which the truth lay within two standard deviations of the book */
  readonly book_inside_2sd: number;
  readonly book_sd_fill_ml: number;
  /** of the loop's volume */
  readonly book_sd_drain_share: number;
  /** share of records that are off by more than two standard deviations */
  readonly record_off: number;
}

export interface TrialResult extends TrialFigures {
  readonly procedures: Readonly<Record<TrialProcedure, TrialFigures>>;
  /** what went wrong, most often first */
  readonly complaints: readonly { readonly what: string; readonly times: number }[];
  /** every entry of the runs that went wrong, with what was inside in truth */
  readonly trace: readonly string[];
}

interface OneRun extends Played {
  readonly overMl: number;
  readonly unwarnedMl: number;
  readonly dryS: number;
  readonly volumeMl: number;
}

const FIRST_COOLANT: Miscible = { productId: 'first', name: 'the first', coolantClass: 'clear', glycol: null, inhibitor: 'one' };
const NEXT_COOLANT: Miscible = { ...FIRST_COOLANT, productId: TRIAL_COOLANT, name: 'the next', inhibitor: 'two' };

/** apart from the machine's own chance, which stays what it was */
const UNIT_SEED = 500_000_003;

/** mL that a machine loses between two visits */
const VAPOUR_ML = [15, 45] as const;

const median = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted.length === 0 ? 0 : (sorted[Math.floor(sorted.length / 2)] as number);
};
const share = (part: number, whole: number): number => (whole === 0 ? 0 : part / whole);

function figuresOf(all: readonly OneRun[]): TrialFigures {
  const looks = all.flatMap(({ booked }) => booked);
  const records = all.flatMap(({ recordOff }) => (recordOff ? [recordOff] : []));
  const inside = ({ offMl, sdMl }: { offMl: number; sdMl: number }): boolean => Math.abs(offMl) <= 2 * sdMl + 1;
  return {
    runs: all.length,
    ended: all.filter(({ ended }) => ended).length,
    dead_ends: all.filter(({ deadEnd }) => deadEnd !== null).length,
    over_lid_runs: all.filter(({ overMl }) => overMl > 0.5).length,
    over_lid_worst_ml: Math.max(0, ...all.map(({ overMl }) => overMl)),
    unwarned_ml: Math.max(0, ...all.map(({ unwarnedMl }) => unwarnedMl)),
    dry_pump_worst_s: Math.max(0, ...all.map(({ dryS }) => dryS)),
    contradictions: all.reduce((sum, { contradictions }) => sum + contradictions.length, 0),
    book_inside_2sd: share(looks.filter(inside).length, looks.length),
    book_sd_fill_ml: median(looks.filter(({ kind }) => kind === 'fill').map(({ sdMl }) => sdMl)),
    book_sd_drain_share: median(
      all.flatMap(({ booked, volumeMl }) => booked.filter(({ kind }) => kind === 'drain').map(({ sdMl }) => sdMl / volumeMl)),
    ),
    record_off: share(records.filter((each) => !inside(each)).length, records.length),
  };
}

const isTroubled = ({ deadEnd, contradictions, overMl, unwarnedMl, dryS }: OneRun): boolean =>
  deadEnd !== null || contradictions.length > 0 || overMl > 0.5 || unwarnedMl > 0.5 || dryS > 0.5;

function complaintsOf(all: readonly OneRun[]): TrialResult['complaints'] {
  const times = new Map<string, number>();
  const tell = (what: string): void => void times.set(what, (times.get(what) ?? 0) + 1);
  for (const { deadEnd, contradictions, overMl, unwarnedMl, dryS } of all) {
    if (deadEnd) tell(`dead end, ${deadEnd.replace(/\d+/g, 'N')}`);
    for (const each of contradictions) tell(`refused, ${each}`);
    if (overMl > 0.5) tell('over the lid');
    if (unwarnedMl > 0.5) tell('unwarned spill');
    if (dryS > 0.5) tell('dry pump');
  }
  return [...times].map(([what, count]) => ({ what, times: count })).sort((a, b) => b.times - a.times);
}

/** Its pump and reservoir out of the case, before anything is built: a bench of its own, with what differs by chance. */
function playUnit(loop: LoopFile, seed: number): OneRun | null {
  const pump = loop.components.find(({ kind }) => kind === 'pump');
  const found = pump ? unitOf(loop, pump.id, WATER) : null;
  if (!found) return null;
  const random = seededRandom(seed);
  const bench = new TrialBench(found.file, WATER, random, Date.parse('2026-03-09T09:00:00Z'));
  const built = buildProcedure({ loop: found.file, unit: found.unit, schools: UNIT_SCHOOLS, order: null, coolantName: null });
  const played = new Technician(built, bench, random).play();
  return {
    ...played,
    overMl: bench.liquid.spilledMl,
    unwarnedMl: bench.unwarnedMl,
    dryS: bench.dryWorstS,
    volumeMl: built.volume.volumeMl,
  };
}

/** A machine's life in the trial: commissioned, then served once, each run from where the one before left it. */
function playMachine(loop: LoopFile, seed: number, service: JobKind, told: (procedure: TrialProcedure, run: OneRun) => void): void {
  const alone = playUnit(loop, seed + UNIT_SEED);
  if (alone) told('unit-test', alone);
  const random = seededRandom(seed);
  const bench = new TrialBench(loop, WATER, random, Date.parse('2026-03-10T09:00:00Z'));
  const schools = { ...DEFAULT_SCHOOLS, wet: 'ten-minutes' } as const;
  let before = { overMl: 0, unwarnedMl: 0 };
  const play = (procedure: ProcedureInput, remade: (() => ProcedureInput) | null = null): { run: OneRun; contents: LoopContents } => {
    const built = buildProcedure(procedure);
    bench.dryWorstS = 0;
    const played = new Technician(built, bench, random, remade && (() => buildProcedure(remade()))).play();
    const now = { overMl: bench.liquid.spilledMl, unwarnedMl: bench.unwarnedMl };
    const run: OneRun & { trace: readonly string[] } = {
      ...played,
      overMl: now.overMl - before.overMl,
      unwarnedMl: now.unwarnedMl - before.unwarnedMl,
      dryS: bench.dryWorstS,
      volumeMl: built.volume.volumeMl,
    };
    // a thousand logs fill the memory: only those that went wrong are kept
    if (!isTroubled(run)) run.trace = [];
    before = now;
    return { run, contents: played.fold.state.contents };
  };
  const first = play({ loop, schools, order: null, coolantName: null });
  told('commissioning', first.run);
  if (!first.run.ended) return;
  // between the two, vapour leaves
  bench.drawOff(random.between(...VAPOUR_ML));
  const part =
    service === 'partial-drain' ? random.pick(loop.components.filter(({ kind }) => kind === 'block' || kind === 'radiator')).id : null;
  // every other strip puts the loop together as another one
  const isChanged = service === 'loop-change' || (service === 'strip-clean' && random.between(0, 1) < 0.5);
  const wanted = isChanged ? generateChange(loop, random) : null;
  // every other change pours another coolant, which must not meet the first: its rinses are played as well
  const follows = service === 'loop-change' && random.between(0, 1) < 0.5 ? mayMix(FIRST_COOLANT, NEXT_COOLANT) : null;
  const given = {
    contents: first.contents,
    kind: service,
    jobId: '',
    filled: true,
    part,
    old: follows ? { productId: FIRST_COOLANT.productId, name: FIRST_COOLANT.name } : null,
    mixes: follows ? [follows] : [],
    ...(follows ? { follows: follows.verdict } : {}),
  };
  const facts = serviceFacts({ ...given, loop, ...(wanted ? { wanted } : {}) });
  const about = { schools: { ...schools, leak: 'wet-only' as const }, order: null, coolantName: null, start: first.contents };
  const { change } = facts;
  const remade = change
    ? () => ({ ...about, loop: change.wanted, service: serviceFacts({ ...given, loop: change.wanted, change }) })
    : null;
  const second = play({ ...about, loop, service: facts }, remade);
  told(service as TrialProcedure, second.run);
}

/**
 * Leads the technician through `runs` machines.
 * @param loopOf the nth machine's loop
 * @param first number of the first, to look at one of many again
 */
export function runTrial(
  runs: number,
  seed: number,
  loopOf: (nth: number) => LoopFile,
  tick?: (nth: number) => void,
  first = 0,
): TrialResult {
  const services = TRIAL_PROCEDURES.filter((each): each is Exclude<TrialProcedure, 'commissioning' | 'unit-test'> => each !== 'commissioning' && each !== 'unit-test'); // prettier-ignore
  const played = Object.fromEntries(TRIAL_PROCEDURES.map((name) => [name, [] as OneRun[]])) as Record<TrialProcedure, OneRun[]>;
  for (let nth = first; nth < first + runs; nth += 1) {
    playMachine(
      loopOf(nth),
      seed * 7919 + nth,
      services[nth % services.length] as JobKind,
      (procedure, run) => void played[procedure].push(run),
    );
    tick?.(nth);
  }
  const all = Object.values(played).flat();
  return {
    ...figuresOf(all),
    procedures: Object.fromEntries(TRIAL_PROCEDURES.map((name) => [name, figuresOf(played[name])])) as TrialResult['procedures'],
    complaints: complaintsOf(all),
    trace: all
      .filter(isTroubled)
      .flatMap(({ trace, deadEnd, overMl, unwarnedMl, dryS }) => [
        `--- ${deadEnd ?? ''} over ${overMl.toFixed(0)} unwarned ${unwarnedMl.toFixed(0)} dry ${dryS.toFixed(2)}`,
        ...trace,
      ]),
  };
}
