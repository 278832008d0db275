import FlatQueue from 'flatqueue';
import { downstreamNodes } from '../flow/downstream.js';
import type { FlowResult } from '../flow/flow.js';
import { levelAtShare, shareBelow, type TurnedBox } from '../geometry/levelCut.js';
import type { TurnedNetwork } from '../geometry/turned.js';
import type { LoopComponent, LoopFile } from '../../machine/loop-file/loopFile.js';

/** A small part of the loop in the order the filling front meets it. */
export interface FrontCell {
  /** node of the geometric network; a vessel's cells share its hub */
  readonly node: number;
  readonly volumeMl: number;
  /** mm; where its liquid stands */
  readonly heightMm: number;
  /** mm; how high the liquid must be lifted to get there: a vessel fed from above fills from below */
  readonly liftMm: number;
  /** kPa lost up to here at the steady flow of the full loop */
  readonly lossKpa: number;
  /** mm; what lies above this height in a vessel runs out again, −Infinity elsewhere */
  readonly vesselKeepsBelowMm: number;
  /** gas that only the running flow carries off, behind the front: it goes beside it */
  readonly slow?: true;
}

/** mL; less gas than this is rounding of a level plane */
const LEAST_CARRIED_ML = 1e-3;
/** Slices a vessel fills in: finer than a graduated reservoir is read. */
const VESSEL_SLICES = 40;

const flowPortHeights = ({ network, heightMm }: TurnedNetwork, component: LoopComponent): number[] =>
  (component.flow ?? Object.keys(component.ports)).map(
    (port) => heightMm[network.ports.get(`${component.id}.${port}`) as number] as number,
  );

/** A vessel from its bottom to its highest flow port, and of the gas above that what does not stay. */
function vesselCells(
  turned: TurnedNetwork,
  component: LoopComponent,
  { node, entryMm, lossKpa }: { readonly node: number; readonly entryMm: number; readonly lossKpa: number },
  staysMl: number | null,
): FrontCell[] {
  const { network, boxes } = turned;
  const box = boxes[network.vesselOf[node] as number] as TurnedBox;
  const ports = flowPortHeights(turned, component);
  const highest = Math.max(...ports);
  const fills = shareBelow(box, highest);
  const carriedMl = staysMl === null ? 0 : Math.max(0, component.volume_ml * (1 - fills) - staysMl);
  const slices = Array.from({ length: VESSEL_SLICES }, (_, slice) => {
    const level = levelAtShare(box, (fills * (slice + 0.5)) / VESSEL_SLICES);
    return {
      node,
      volumeMl: (component.volume_ml * fills) / VESSEL_SLICES,
      heightMm: level,
      liftMm: Math.max(entryMm, level),
      lossKpa,
      vesselKeepsBelowMm: Math.min(...ports),
    };
  });
  if (carriedMl < LEAST_CARRIED_ML) return slices;
  const heightMm = levelAtShare(box, fills + carriedMl / component.volume_ml / 2);
  return [
    ...slices,
    {
      node,
      volumeMl: carriedMl,
      heightMm,
      liftMm: Math.max(entryMm, highest),
      lossKpa,
      vesselKeepsBelowMm: Math.min(...ports),
      slow: true,
    },
  ];
}

/**
 * The cells from the reservoir's outlet to its return, in the order liquid reaches them when the loop is filled with
 * the pump. Where the loop branches, the branches fill side by side, each as fast as its share of the steady flow.
 * @param flow of the full loop; where nothing flows the tubes' own direction is taken
 * @param staysMl gas by node that stays at the running flow; null: all above a vessel's ports does, and none elsewhere
 */
export function frontPath(
  turned: TurnedNetwork,
  loop: LoopFile,
  reservoir: LoopComponent,
  flow: FlowResult,
  staysMl: Float64Array | null = null,
): FrontCell[] {
  const { network, heightMm } = turned;
  const stands = [...flow.links.values()].every(({ flowLph }) => Math.abs(flowLph) < 1e-6);
  const flowOf = (part: number): number => (stands ? 1 : (flow.links.get(network.partIds[part] as string)?.flowLph ?? 0));
  const next = downstreamNodes(network, loop, flowOf);
  const cellsOfPart = new Float64Array(network.partIds.length);
  for (let node = 0; node < network.size; node += 1) {
    if ((network.volumeMl[node] as number) > 0)
      cellsOfPart[network.part[node] as number] = (cellsOfPart[network.part[node] as number] as number) + 1;
  }
  const dropOf = (node: number): number => {
    const part = network.part[node] as number;
    if ((network.volumeMl[node] as number) === 0) return 0;
    return Math.max(0, flow.links.get(network.partIds[part] as string)?.dropKpa ?? 0) / (cellsOfPart[part] as number);
  };
  const outlet = reservoir.flow?.[1] ?? (Object.keys(reservoir.ports).at(-1) as string);
  const start = network.ports.get(`${reservoir.id}.${outlet}`) as number;
  /** where the front stands: time in mL per (L/h), loss so far, and the height it came in at */
  interface Front {
    readonly node: number;
    readonly time: number;
    readonly lossKpa: number;
    readonly entryMm: number;
  }
  const reached = new Set<number>();
  const fronts: Front[] = [];
  const waiting = new FlatQueue<number>();
  const arrive = (front: Front): void => waiting.push(fronts.push(front) - 1, front.time);
  arrive({ node: start, time: 0, lossKpa: 0, entryMm: heightMm[start] as number });
  const found: Front[] = [];
  for (let index = waiting.pop(); index !== undefined; index = waiting.pop()) {
    const at = fronts[index] as Front;
    if (reached.has(at.node)) continue;
    const isReservoir = loop.components[network.part[at.node] as number]?.id === reservoir.id;
    if (isReservoir && at.node !== start) continue;
    reached.add(at.node);
    const ml = network.volumeMl[at.node] as number;
    const time = at.time + ml / Math.max(1e-6, Math.abs(flowOf(network.part[at.node] as number)));
    const lossKpa = at.lossKpa + dropOf(at.node);
    if (ml > 0) found.push({ node: at.node, time, lossKpa, entryMm: at.entryMm });
    const height = heightMm[at.node] as number;
    for (const node of next(at.node)) arrive({ node, time, lossKpa, entryMm: height === Number.NEGATIVE_INFINITY ? at.entryMm : height });
  }
  found.sort((a, b) => a.time - b.time);
  return found.flatMap(({ node, lossKpa, entryMm }): FrontCell[] => {
    const part = network.part[node] as number;
    if ((network.vesselOf[node] as number) >= 0)
      return vesselCells(turned, loop.components[part] as LoopComponent, { node, entryMm, lossKpa }, staysMl && (staysMl[node] as number));
    const height = heightMm[node] as number;
    return [
      {
        node,
        volumeMl: Math.max(0, (network.volumeMl[node] as number) - (staysMl ? (staysMl[node] as number) : 0)),
        heightMm: height,
        liftMm: height,
        lossKpa,
        vesselKeepsBelowMm: Number.NEGATIVE_INFINITY,
      },
    ];
  });
}
