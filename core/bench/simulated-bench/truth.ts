import { freeingTurn } from '../../physics/air/airLeft.js';
import type { StandingName } from '../../machine/loop-file/orientation.js';
import type { InstrumentKind } from '../instruments/kinds.js';
import { LEAK_LIMITS } from '../../physics/leak-testing/defaults.js';
import { reservoirMarks } from '../../machine/loop-file/marks.js';
import { tubesByHand, type LoopComponent, type LoopFile } from '../../machine/loop-file/loopFile.js';
import { seededRandom, type Random } from '../../base/random/random.js';
import { drawJointCause, type HiddenCause } from '../leak-finding/hiddenCauses.js';
import { findTubeMaterial } from '../../machine/materials/tubes.js';
import { SIMULATED } from './defaults.js';
import { drawFinding, type HiddenFinding } from './finding.js';
import { changesLoop, JOB_KIND_KEYS, JOB_KINDS, type JobKind } from '../../workshop/job-kinds/kinds.js';

/** Which fault a simulated bench hides. `surprise` draws one, or none. */
export const SCENARIOS = {
  surprise: 'One of these, or none',
  clean: 'Nothing wrong but the volumes',
  leak: 'A leak at one of the joints',
  ring: 'A ring that is pinched or missing',
  screw: 'A screw that went through a radiator',
  gasket: 'A gasket that is pressed unevenly',
  pocket: 'Air that will not come home by itself',
  'weak-pump': 'A pump below its curve',
  kink: 'A tube that is kinked',
  choked: 'A part that is choked',
  dropout: 'An instrument that falls silent',
  deposit: 'Deposit in one of the parts',
  spent: 'A part that is at its end',
} as const;
export type Scenario = keyof typeof SCENARIOS;
export const SCENARIO_KEYS = Object.keys(SCENARIOS) as Scenario[];

/** what only an inspection sheet shows */
const OF_SHEETS: readonly Scenario[] = ['deposit', 'spent'];
const OF_BUILDS = SCENARIO_KEYS.filter((key) => !OF_SHEETS.includes(key));
/** what a loop that is filled again may hide whatever was done to it */
const OF_REFILLS: readonly Scenario[] = ['surprise', 'clean', 'pocket', 'weak-pump', 'kink', 'choked', 'dropout'];

/** What a bench may hide where a kind of job is practised; null: a commissioning. */
export function scenariosFor(job: JobKind | null): readonly Scenario[] {
  if (job === null) return OF_BUILDS;
  if (job === 'leak-repair') return ['surprise', 'leak', 'ring', 'screw', 'gasket'];
  if (job === 'strip-clean') return [...OF_REFILLS, 'leak', ...OF_SHEETS];
  // nothing is filled again, or only drops are: only the volumes are off
  return JOB_KINDS[job].fill === 'none' || job === 'top-up' ? ['clean'] : OF_REFILLS;
}

/** Jobs that can be practised: whatever moves liquid in a loop that stays as it is. */
export const PRACTISED: readonly JobKind[] = JOB_KIND_KEYS.filter((kind) => JOB_KINDS[kind].opens !== 'not' && !changesLoop(kind));

/** What the bench hides. The same loop, seed and scenario hide the same. */
export interface HiddenTruth {
  readonly scenario: Exclude<Scenario, 'surprise'>;
  /** by part and run: what it really holds over what its sheet says */
  readonly volumeFactor: Readonly<Record<string, number>>;
  /** the tube or part that leaks, why, and how much air it lets out at the test pressure */
  readonly leak: { readonly place: string; readonly mbarLs: number; readonly cause: HiddenCause } | null;
  /** the tube that is kinked or the part that is choked: the flow through it is held up */
  readonly narrow: { readonly place: string; readonly why: 'kink' | 'choked' } | null;
  /** share of the pump's stated speed */
  readonly pumpShare: number;
  /** gas that only a turn lets out */
  readonly pocket: { readonly parts: readonly string[]; readonly ml: number; readonly to: StandingName } | null;
  /** kPa that the gauge can be read to */
  readonly gaugeStepKpa: number;
  readonly dropout: { readonly kind: InstrumentKind; readonly fromS: number; readonly forS: number } | null;
  /** what the inspection sheet of a service should say; null: every part is sound. Missing in practices before services were played */
  readonly finding?: HiddenFinding | null;
  /** mL by which a machine stood below its mark when it came; missing: a build */
  readonly lowMl?: number;
}

/** what a leak lets out, as multiples of the screening limit: found in minutes, and seen as drops within the hour */
const LEAK_TIMES = [8, 40] as const;
/** what hides is drawn apart, so that a seed hides the same leak as before */
const CAUSE_SEED = 104_729;
const WEAK_PUMP = [0.55, 0.75] as const;
/** mL; a stop of the pump must show it: smaller ones hide behind the surface's own restlessness */
const POCKET_ML = [45, 75] as const;

/** @param job the service that is practised; null: a commissioning */
export function drawTruth(loop: LoopFile, seed: number, wanted: Scenario, job: JobKind | null = null): HiddenTruth {
  const random = seededRandom(seed);
  const turn = freeingTurn(loop);
  const possible = scenariosFor(job).filter((key): key is HiddenTruth['scenario'] => key !== 'surprise' && canHide(loop, key));
  const drawn = random.pick(possible);
  const scenario = wanted === 'surprise' ? drawn : wanted;
  return {
    scenario,
    volumeFactor: volumeFactors(loop, random),
    leak: leakOf(loop, scenario, random, seed),
    narrow: narrowOf(loop, scenario, random),
    pumpShare: scenario === 'weak-pump' ? random.between(...WEAK_PUMP) : random.between(0.97, 1),
    pocket: scenario === 'pocket' ? pocketOf(loop, turn, random) : null,
    gaugeStepKpa: 0.1,
    dropout: scenario === 'dropout' ? { kind: random.pick(['gauge', 'level', 'scale'] as const), fromS: random.between(60, 240), forS: 900 } : null, // prettier-ignore
    ...(job === null ? {} : { finding: drawFinding(loop, scenario, seed), lowMl: lowOf(loop, job, seed) }),
  };
}

/** share of what stands between the marks that vapour took since the last visit, and where the job is to put it back */
const LOW_SHARE = [0.05, 0.3] as const;
const LOW_SHARE_TOP_UP = [0.4, 0.8] as const;
const LOW_SEED = 7_368_787;

function lowOf(loop: LoopFile, job: JobKind, seed: number): number {
  const reservoir = loop.components.find(({ kind }) => kind === 'reservoir');
  if (!reservoir) return 0;
  const { fillMarkMl, lowMarkMl } = reservoirMarks(reservoir);
  const [least, most] = job === 'top-up' ? LOW_SHARE_TOP_UP : LOW_SHARE;
  return (fillMarkMl - lowMarkMl) * seededRandom(seed + LOW_SEED).between(least, most);
}

const ofKind = ({ components }: LoopFile, ...kinds: readonly string[]): string[] =>
  components.filter(({ kind }) => kinds.includes(kind)).map(({ id }) => id);

/** Places at which a scenario may hide its fault; null: it hides none at a place. */
function placesFor(loop: LoopFile, scenario: Scenario): string[] | null {
  switch (scenario) {
    case 'leak':
      return tubesByHand(loop).map(({ id }) => id);
    case 'ring':
      return ofKind(loop, 'reservoir', 'pump', 'radiator', 'block', 'junction', 'valve');
    case 'screw':
      return ofKind(loop, 'radiator');
    case 'gasket':
      return ofKind(loop, 'block');
    case 'kink':
      return tubesByHand(loop)
        .filter(({ material }) => findTubeMaterial(material)?.soft !== false)
        .map(({ id }) => id);
    case 'choked':
      return ofKind(loop, 'block', 'filter');
    default:
      return null;
  }
}

/** A loop without a radiator hides no screw in one. */
const canHide = (loop: LoopFile, scenario: Scenario): boolean => placesFor(loop, scenario)?.length !== 0;

const CAUSES: Readonly<Partial<Record<Scenario, HiddenCause>>> = { screw: 'screw-through-tube', gasket: 'uneven-gasket' };

function leakOf(loop: LoopFile, scenario: Scenario, random: Random, seed: number): HiddenTruth['leak'] {
  const places = ['leak', 'ring', 'screw', 'gasket'].includes(scenario) ? (placesFor(loop, scenario) ?? []) : [];
  if (places.length === 0) return null;
  const place = random.pick(places);
  const mbarLs = LEAK_LIMITS.screen.mbarLs * random.between(...LEAK_TIMES);
  const ring = loop.components.some(({ id, kind }) => id === place && kind === 'reservoir') ? 'base-seal' : 'fitting-ring';
  const cause = CAUSES[scenario] ?? (scenario === 'ring' ? ring : drawJointCause(seededRandom(seed + CAUSE_SEED)));
  return { place, mbarLs, cause };
}

function narrowOf(loop: LoopFile, scenario: Scenario, random: Random): HiddenTruth['narrow'] {
  const places = scenario === 'kink' || scenario === 'choked' ? (placesFor(loop, scenario) ?? []) : [];
  return places.length === 0 ? null : { place: random.pick(places), why: scenario === 'kink' ? 'kink' : 'choked' };
}

function volumeFactors(loop: LoopFile, random: Random): Record<string, number> {
  const within = (factor: number): number => Math.max(0.7, Math.min(1.3, factor));
  return Object.fromEntries([
    ...loop.components.map(({ id, kind, volume_ml, volume_sd_ml }) => {
      // a reservoir has a scale on it: its volume is known
      if (kind === 'reservoir' || volume_ml <= 0) return [id, 1];
      const share = volume_sd_ml === undefined ? SIMULATED.volumeSdShare : volume_sd_ml / volume_ml;
      return [id, within(1 + share * random.normal())];
    }),
    ...loop.tubes.map(({ id }) => [id, within(1 + 0.02 * random.normal())]),
  ]) as Record<string, number>;
}

/** Where geometry traps nothing, gas hangs in the largest radiator or block until the case is laid down. */
function pocketOf(loop: LoopFile, turn: ReturnType<typeof freeingTurn>, random: Random): HiddenTruth['pocket'] {
  const ml = random.between(...POCKET_ML);
  if (turn) return { parts: turn.parts, ml, to: turn.to };
  const vessels = loop.components.filter(({ kind }) => kind === 'radiator' || kind === 'block');
  const largest = vessels.reduce<(typeof vessels)[number] | null>(
    (so, each) => (so === null || each.volume_ml > so.volume_ml ? each : so),
    null,
  );
  return largest && { parts: [largest.id], ml, to: 'on-back' };
}

/** elbows that a tube pinched to a slit is worth; what a block full of debris resists over a clean one (general estimates) */
const KINK_ELBOWS = 40;
const CHOKED_TIMES = 12;

/** The loop as it really is behind the simulated bench. */
export function hiddenLoop(loop: LoopFile, { volumeFactor, pumpShare, narrow }: HiddenTruth): LoopFile {
  return {
    ...loop,
    components: loop.components.map((part) => ({
      ...part,
      volume_ml: part.volume_ml * (volumeFactor[part.id] ?? 1),
      ...(part.kind === 'pump' ? { speed: (part.speed ?? 1) * pumpShare } : {}),
      ...(narrow?.place === part.id && part.resistance ? { resistance: choked(part.resistance) } : {}),
    })),
    tubes: loop.tubes.map((tube) =>
      narrow?.place === tube.id ? { ...tube, fittings: [...(tube.fittings ?? []), ...Array<string>(KINK_ELBOWS).fill('90')] } : tube,
    ),
  };
}

const choked = (resistance: NonNullable<LoopComponent['resistance']>): NonNullable<LoopComponent['resistance']> =>
  'points' in resistance
    ? { points: resistance.points.map(([lph, kpa]) => [lph, kpa * CHOKED_TIMES] as const) }
    : {
        linear_kpa_per_lpm: resistance.linear_kpa_per_lpm * CHOKED_TIMES,
        quadratic_kpa_per_lpm2: resistance.quadratic_kpa_per_lpm2 * CHOKED_TIMES,
      };
