import { BENCH_C } from '../measuring/errors.js';
import { prepareFlow, solveAtSpeed, type FlowResult } from '../flow/flow.js';
import { liquidAt, type Liquid } from '../../machine/liquids/fluids.js';
import { pumpsWithoutCurve } from '../flow/network.js';
import { buildNetwork, vesselsWithoutBox, type GeometricNetwork } from '../geometry/network.js';
import { STANDING, STANDING_NAMES, type StandingName } from '../../machine/loop-file/orientation.js';
import { turnNetwork } from '../geometry/turned.js';
import { tubeLengthMm, type LoopFile } from '../../machine/loop-file/loopFile.js';
import { TUBE_MATERIALS, type TubePiece } from '../../machine/materials/tubes.js';
import { findTrappedAir, type AirPocket } from './pockets.js';
import type { RiseModel } from './airEstimate.js';
import { tubeStretchMl } from './rise.js';

/** What a loop's levels can be read with: computed once for a loop and a pump speed. */
export interface BleedModel extends RiseModel {
  /** the turn that frees most of the largest pocket, or null where no turn does */
  readonly turn: { readonly to: StandingName; readonly freesMl: number; readonly parts: readonly string[] } | null;
}

type Gauges = FlowResult['portGaugeKpa'];

/**
 * Pressures at the places where gas may sit, and what soft tube stretches. null where a pump has no curve, a vessel no
 * box, or the loop no reservoir: then the rise says nothing about millilitres.
 */
export function bleedModel(loop: LoopFile, liquid: Liquid, pumpSpeed: number): BleedModel | null {
  const reservoir = loop.components.find(({ kind }) => kind === 'reservoir');
  if (!reservoir?.box || vesselsWithoutBox(loop).length > 0 || pumpsWithoutCurve(loop).length > 0) return null;
  const heightMm = reservoir.box.max[1] - reservoir.box.min[1];
  if (heightMm <= 0 || reservoir.volume_ml <= 0) return null;
  const prepared = prepareFlow(loop, liquidAt(liquid, BENCH_C));
  const [running, standing] = [pumpSpeed, 0].map((speed) => solveAtSpeed(prepared, speed).portGaugeKpa) as [Gauges, Gauges];
  const meanOf = (gauges: Gauges, ends: readonly string[]): number =>
    ends.reduce((sum, end) => sum + (gauges.get(end) ?? 0), 0) / Math.max(1, ends.length);
  const portsOf = (id: string): string[] => {
    const part = loop.components.find((each) => each.id === id);
    if (part) return Object.keys(part.ports).map((port) => `${id}.${port}`);
    const tube = loop.tubes.find((each) => each.id === id);
    return tube ? [tube.from.join('.'), tube.to.join('.')] : [];
  };
  const network = buildNetwork(loop);
  const upright = findTrappedAir(turnNetwork(network, STANDING.upright)).pockets;
  const places =
    upright.length > 0
      ? upright.map(({ parts, volumeMl }) => ({ parts: parts.map((part) => network.partIds[part] as string), volumeMl }))
      : anywhere(loop);
  // the gas may sit in any part of a pocket, and each feels the pump otherwise
  const pockets = places.flatMap(({ parts, volumeMl }) =>
    parts.map((part) => {
      const ends = portsOf(part);
      return { parts: [part], volumeMl, runGaugeKpa: meanOf(running, ends), offGaugeKpa: meanOf(standing, ends) };
    }),
  );
  const stretchMl = loop.tubes.reduce((sum, tube) => {
    if (!Object.hasOwn(TUBE_MATERIALS, tube.material) || tube.outer_mm <= tube.bore_mm) return sum;
    const ends = portsOf(tube.id);
    const piece = {
      material: tube.material as TubePiece['material'],
      boreMm: tube.bore_mm,
      outerMm: tube.outer_mm,
      lengthMm: tubeLengthMm(loop, tube),
    };
    return sum + tubeStretchMl(piece, meanOf(running, ends) - meanOf(standing, ends));
  }, 0);
  return { areaMm2: (reservoir.volume_ml * 1000) / heightMm, pockets, stretchMl, turn: turnFor(network, upright[0]) };
}

/** Without a pocket by geometry, gas may still hang in any radiator or block. */
const anywhere = (loop: LoopFile): { parts: string[]; volumeMl: number }[] =>
  loop.components
    .filter(({ kind }) => kind === 'radiator' || kind === 'block')
    .map(({ id, volume_ml }) => ({ parts: [id], volumeMl: volume_ml }));

/** how many times as much a machine on its head must free before it is advised */
const WORTH_TURNING_OVER = 2;

/** The stand in which most of the largest upright pocket finds its way up. */
export function freeingTurn(loop: LoopFile): BleedModel['turn'] {
  const network = buildNetwork(loop);
  return turnFor(network, findTrappedAir(turnNetwork(network, STANDING.upright)).pockets[0]);
}

function turnFor(network: GeometricNetwork, largest: AirPocket | undefined): BleedModel['turn'] {
  if (!largest) return null;
  const own = new Set(largest.nodes);
  const parts = largest.parts.map((part) => network.partIds[part] as string);
  const turns = STANDING_NAMES.filter((name) => name !== 'upright').map((to) => {
    const stays = findTrappedAir(turnNetwork(network, STANDING[to])).pockets.filter(({ nodes }) => nodes.some((node) => own.has(node)));
    const staysMl = stays.reduce((sum, { volumeMl }) => sum + volumeMl, 0);
    return { to, freesMl: Math.max(0, largest.volumeMl - staysMl), parts };
  });
  const most = (among: typeof turns) => among.reduce((best, each) => (each.freesMl > best.freesMl + 0.5 ? each : best));
  const quarter = most(turns.filter(({ to }) => to !== 'upside-down'));
  const over = most(turns);
  // a machine on its head is a lift for two: only where it frees far more than a quarter turn
  const best = over.freesMl > WORTH_TURNING_OVER * quarter.freesMl ? over : quarter;
  return best.freesMl > 1 ? best : null;
}
