import { BENCH_C } from '../../physics/measuring/errors.js';
import { closureName, sealPlaces } from '../../machine/seals/places.js';
import { shortName, tubesInOrder } from '../../machine/catalogue/names.js';
import { liquidAt, type Liquid } from '../../machine/liquids/fluids.js';
import type { LoopComponent, LoopFile } from '../../machine/loop-file/loopFile.js';
import { reservoirMarks } from '../../machine/loop-file/marks.js';
import { FILL } from '../../physics/filling/frontMoves.js';
import { worstIntakes } from '../../physics/flow/intakeHead.js';
import { nameOpening } from '../../physics/draining/openingNames.js';
import { fillByGravity } from '../../physics/filling/gravityFill.js';
import { simulateFill } from '../../physics/filling/fillSimulation.js';
import { uncoverAngles } from '../../physics/filling/outletAngle.js';
import { pumpsWithoutCurve } from '../../physics/flow/network.js';
import { vesselsWithoutBox } from '../../physics/geometry/network.js';
import { MOST_GAUGE_KPA } from '../../physics/leak-testing/defaults.js';
import type { LoopFacts, PortFact } from '../runs/facts.js';

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

function portsOf(loop: LoopFile): PortFact[] {
  return loop.components.flatMap((part) =>
    Object.entries(part.closures ?? {}).map(([port, closure]) => ({
      name: `${part.id}.${port}`,
      label: closureName(part, port, closure),
      valve: closure === 'valve',
      ofReservoir: part.kind === 'reservoir',
      heightMm: part.ports[port]?.[1] ?? 0,
    })),
  );
}

function gravityOf(loop: LoopFile): Pick<LoopFacts, 'gravity'> {
  const { port, turns } = fillByGravity(loop);
  return turns.length > 0 ? { gravity: { port, label: nameOpening(loop, port), turns } } : {};
}

/** Facts of a loop, computed once when a run begins. What geometry or curves are missing for stays null. */
export function loopFacts(loop: LoopFile, liquid: Liquid): LoopFacts {
  // a case with two circuits is filled one after the other: what is poured cannot be told apart, so nothing is predicted
  const reservoirs = loop.components.filter(({ kind }) => kind === 'reservoir');
  const reservoir = reservoirs.length === 1 ? (reservoirs[0] as LoopComponent) : null;
  const boxed = vesselsWithoutBox(loop).length === 0;
  const marks = reservoir && reservoirMarks(reservoir);
  const canFlow = pumpsWithoutCurve(loop).length === 0 && loop.components.some(({ kind }) => kind === 'pump');
  const simulation =
    reservoir && boxed && canFlow ? simulateFill(loop, liquidAt(liquid, BENCH_C), reservoir, { leastGainMl: FILL.handsGainMl }) : null;
  const box = reservoir?.box;
  return {
    ...gaugeCap(loop),
    ports: portsOf(loop),
    joints: tubesInOrder(loop),
    parts: loop.components.map((part) => ({ id: part.id, name: shortName(part) })),
    seals: sealPlaces(loop).map(({ id, name, hasRing }) => ({ id, name, ...(hasRing ? {} : { hasRing }) })),
    reservoir:
      reservoir && box && marks
        ? { ...marks, ...(box.max[1] > box.min[1] ? { mlPerMm: reservoir.volume_ml / (box.max[1] - box.min[1]) } : {}) }
        : null,
    uncovers: reservoir && box && marks ? uncoverAngles(reservoir, marks.lowMarkMl) : [],
    ...(reservoirs.length === 0 && boxed ? gravityOf(loop) : {}),
    fill: simulation && {
      primes: simulation.primes,
      liftMm: simulation.liftMm,
      shutoffMm: simulation.shutoffMm,
      passiveMl: simulation.passiveMl,
      pulses: simulation.pulses.map(({ runS, movedMl, fallsBackMl, refillMl, pouredRunning, speed, slowed }) => ({
        runS,
        movedMl,
        fallsBackMl,
        refillMl,
        pouredRunning,
        ...(slowed ? { speed } : {}),
      })),
      totalMl: simulation.totalMl,
    },
    shortOfHead: canFlow
      ? worstIntakes(loop, liquid).flatMap(({ pump, gaugeKpa, verdict }) => (verdict === 'enough' ? [] : [{ pump, gaugeKpa, verdict }]))
      : [],
  };
}
