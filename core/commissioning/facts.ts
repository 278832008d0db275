import { runName, shortName } from '../catalogue/names.js';
import { simulateFill } from '../filling/fillSimulation.js';
import { uncoverAngles, type UncoverAngle } from '../filling/outletAngle.js';
import { liquidAt, type Liquid } from '../flow/fluids.js';
import { pumpsWithoutCurve } from '../flow/network.js';
import { vesselsWithoutBox } from '../geometry/network.js';
import { MOST_GAUGE_KPA } from '../leak-testing/defaults.js';
import { flowOrder } from '../loops/chain.js';
import type { LoopComponent, LoopFile } from '../loops/loopFile.js';
import { reservoirMarks } from '../loops/marks.js';

/** A port that can be opened, as the hands meet it. */
export interface PortFact {
  /** "component.port" */
  readonly name: string;
  readonly label: string;
  readonly valve: boolean;
  readonly ofReservoir: boolean;
  /** mm, upright */
  readonly heightMm: number;
}

export interface PulseFact {
  readonly runS: number;
  readonly movedMl: number;
  readonly fallsBackMl: number;
  readonly refillMl: number;
  readonly pouredRunning: boolean;
}

export interface FillFacts {
  readonly primes: boolean;
  readonly liftMm: number;
  readonly shutoffMm: number;
  readonly passiveMl: number;
  readonly pulses: readonly PulseFact[];
  readonly totalMl: number;
}

export interface ReservoirFacts {
  readonly fillMarkMl: number;
  readonly lowMarkMl: number;
  /** what one millimetre of its level holds; missing in runs that began before it was kept */
  readonly mlPerMm?: number;
}

/** What a run must know of its loop to predict and to lock. Stored with the run: a later edit of the loop does not reach it. */
export interface LoopFacts {
  /** kPa; the lowest rating on record, or the cap for loops without one */
  readonly mostGaugeKpa: number;
  /** the part that sets it, or null for the cap */
  readonly weakest: string | null;
  readonly ports: readonly PortFact[];
  /** runs in flow order, each with two joints */
  readonly joints: readonly { readonly id: string; readonly name: string }[];
  readonly parts: readonly { readonly id: string; readonly name: string }[];
  readonly reservoir: ReservoirFacts | null;
  /** at the low mark: the least that a running loop may hold */
  readonly uncovers: readonly UncoverAngle[];
  readonly fill: FillFacts | null;
}

/** °C of the liquid on the bench */
const BENCH_C = 25;

function gaugeCap(loop: LoopFile): Pick<LoopFacts, 'mostGaugeKpa' | 'weakest'> {
  const rated = loop.components.filter(
    (part): part is LoopComponent & { pressure_rating_kpa: number } => part.pressure_rating_kpa !== undefined,
  );
  const weakest = rated.reduce<(typeof rated)[number] | null>(
    (low, part) => (low === null || part.pressure_rating_kpa < low.pressure_rating_kpa ? part : low),
    null,
  );
  const allRated = rated.length === loop.components.length;
  if (weakest && (allRated || weakest.pressure_rating_kpa < MOST_GAUGE_KPA))
    return { mostGaugeKpa: weakest.pressure_rating_kpa, weakest: shortName(weakest) };
  return { mostGaugeKpa: MOST_GAUGE_KPA, weakest: null };
}

export const runsInOrder = (loop: LoopFile): { id: string; name: string }[] => {
  const { links, offPath } = flowOrder(loop);
  const tubes = [...links.flatMap(({ tube }) => (tube ? [tube] : [])), ...offPath.tubes];
  return tubes.map((tube) => ({ id: tube.id, name: runName(loop, tube) }));
};

function portsOf(loop: LoopFile): PortFact[] {
  return loop.components.flatMap((part) =>
    Object.entries(part.closures ?? {}).map(([port, closure]) => ({
      name: `${part.id}.${port}`,
      label: `${closure} of ${shortName(part)}, ${port}`,
      valve: closure === 'valve',
      ofReservoir: part.kind === 'reservoir',
      heightMm: part.ports[port]?.[1] ?? 0,
    })),
  );
}

/** Facts of a loop, computed once when a run begins. What geometry or curves are missing for stays null. */
export function loopFacts(loop: LoopFile, liquid: Liquid): LoopFacts {
  // a case with two circuits is filled one after the other: what is poured cannot be told apart, so nothing is predicted
  const reservoirs = loop.components.filter(({ kind }) => kind === 'reservoir');
  const reservoir = reservoirs.length === 1 ? (reservoirs[0] as LoopComponent) : null;
  const boxed = vesselsWithoutBox(loop).length === 0;
  const marks = reservoir && reservoirMarks(reservoir);
  const simulation =
    reservoir && boxed && pumpsWithoutCurve(loop).length === 0 && loop.components.some(({ kind }) => kind === 'pump')
      ? simulateFill(loop, liquidAt(liquid, BENCH_C), reservoir)
      : null;
  const box = reservoir?.box;
  return {
    ...gaugeCap(loop),
    ports: portsOf(loop),
    joints: runsInOrder(loop),
    parts: loop.components.map((part) => ({ id: part.id, name: shortName(part) })),
    reservoir:
      reservoir && box && marks
        ? { ...marks, ...(box.max[1] > box.min[1] ? { mlPerMm: reservoir.volume_ml / (box.max[1] - box.min[1]) } : {}) }
        : null,
    uncovers: reservoir && box && marks ? uncoverAngles(reservoir, marks.lowMarkMl) : [],
    fill: simulation && {
      primes: simulation.primes,
      liftMm: simulation.liftMm,
      shutoffMm: simulation.shutoffMm,
      passiveMl: simulation.passiveMl,
      pulses: simulation.pulses.map(({ runS, movedMl, fallsBackMl, refillMl, pouredRunning }) => ({
        runS,
        movedMl,
        fallsBackMl,
        refillMl,
        pouredRunning,
      })),
      totalMl: simulation.totalMl,
    },
  };
}
