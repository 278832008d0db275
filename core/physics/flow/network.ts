import type { Fluid } from '../../machine/liquids/fluids.js';
import {
  partFinder,
  tubeLengthMm,
  type LoopComponent,
  type LoopFile,
  type LoopTube,
  type Point,
} from '../../machine/loop-file/loopFile.js';
import { DisjointSets } from '../../base/numerics/disjointSets.js';
import { brokenLine, type BrokenLine } from '../../base/numerics/broken.js';
import { fittingK, FLOW, LPH_PER_LPM } from './defaults.js';
import { fittingQuadratic, prepareFriction, type TubeFriction } from './friction.js';

/** What a link does to the flow through it, q in L/min, pressures in kPa. `scale` is 0.5 for half a component. */
export type Law =
  | { readonly kind: 'quadratic'; readonly linear: number; readonly quadratic: number; readonly scale: number }
  | { readonly kind: 'table'; readonly line: BrokenLine; readonly scale: number }
  | { readonly kind: 'pump'; readonly pump: number; readonly line: BrokenLine; readonly scale: number }
  | {
      readonly kind: 'tube';
      readonly friction: TubeFriction;
      readonly quadratic: number;
      readonly boreMm: number;
      readonly lengthMm: number;
    };

/** One link of the hydraulic network, positive from `from` to `to`. */
export interface HydraulicLink {
  /** index of the component or tube: components first, then tubes */
  readonly part: number;
  readonly from: number;
  readonly to: number;
  readonly law: Law;
}

export interface HydraulicPort {
  /** "component.port" */
  readonly key: string;
  readonly node: number;
  /** mm, upright */
  readonly heightMm: number;
}

/** Ports merged where nothing is lost between them; links between what is left. */
export interface HydraulicNetwork {
  readonly nodeCount: number;
  readonly links: readonly HydraulicLink[];
  /** component after component, in the file's order */
  readonly ports: readonly HydraulicPort[];
  /** ports of component i: `firstPort[i] … firstPort[i + 1] − 1` */
  readonly firstPort: Int32Array;
  /** port indices of each component's `flow`, −1 without one; pairs [in, out] */
  readonly flowPorts: Int32Array;
  /** port indices of each tube's ends; pairs [from, to] */
  readonly tubePorts: Int32Array;
  /** pumps in the file's order */
  readonly pumpIds: readonly string[];
}

/** A loss table always passes through no flow, no loss; flow backwards loses the same. */
function lossTable(points: readonly (readonly [number, number])[]): BrokenLine {
  return brokenLine([[0, 0], ...points.filter(([lph]) => lph > 0)], 1 / LPH_PER_LPM);
}

function componentLaw(component: LoopComponent, pump: number, scale: number): Law | null {
  if (component.kind === 'pump' && component.curve) {
    return { kind: 'pump', pump, line: brokenLine(component.curve, 1 / LPH_PER_LPM), scale };
  }
  const { resistance } = component;
  if (!resistance || component.kind === 'reservoir') return null;
  if ('points' in resistance) return { kind: 'table', line: lossTable(resistance.points), scale };
  const { linear_kpa_per_lpm: linear, quadratic_kpa_per_lpm2: quadratic } = resistance;
  return linear === 0 && quadratic === 0 ? null : { kind: 'quadratic', linear, quadratic, scale };
}

function tubeLaw(tube: LoopTube, pathMm: number, fluid: Fluid): Law {
  const lengthMm = Math.max(FLOW.leastTubeMm, pathMm);
  const k = (tube.fittings ?? []).reduce((sum, kind) => sum + fittingK(kind), 0);
  return {
    kind: 'tube',
    friction: prepareFriction(tube.bore_mm, lengthMm, FLOW.roughnessMm, fluid),
    quadratic: fittingQuadratic(k, tube.bore_mm, fluid.densityKgM3),
    boreMm: tube.bore_mm,
    lengthMm,
  };
}

/**
 * The loop as a hydraulic network. A component without loss joins all its ports; one with a loss stands between its
 * `flow` ports, and a third port that carries a tube sits halfway along it. Shut parts leave no link.
 * Before: a checked loop; every pump that is not shut has a curve (`pumpsWithoutCurve` is empty).
 */
export function buildHydraulics(loop: LoopFile, fluid: Fluid, shut: ReadonlySet<string>): HydraulicNetwork {
  const groups = new DisjointSets();
  const ports: { key: string; heightMm: number }[] = [];
  const indexOf = new Map<string, number>();
  const links: HydraulicLink[] = [];
  const pumpIds: string[] = [];
  const find = partFinder(loop);
  const firstPort = new Int32Array(loop.components.length + 1);
  const flowPorts = new Int32Array(2 * loop.components.length).fill(-1);
  loop.components.forEach((component, part) => {
    const first = ports.length;
    firstPort[part] = first;
    for (const port of Object.keys(component.ports)) {
      const key = `${component.id}.${port}`;
      indexOf.set(key, groups.add());
      ports.push({ key, heightMm: (component.ports[port] as Point)[1] });
    }
    if (component.flow)
      component.flow.forEach((port, end) => (flowPorts[2 * part + end] = indexOf.get(`${component.id}.${port}`) as number));
    if (component.kind === 'pump') pumpIds.push(component.id);
    if (shut.has(component.id)) return;
    const law = (scale: number): Law | null => componentLaw(component, pumpIds.length - 1, scale);
    const whole = component.flow ? law(1) : null;
    if (!whole) {
      for (let other = first + 1; other < ports.length; other += 1) groups.merge(other, first);
      return;
    }
    const [from, to] = [flowPorts[2 * part] as number, flowPorts[2 * part + 1] as number];
    let middle = -1;
    for (let other = first; other < ports.length; other += 1) {
      if (other === from || other === to) continue;
      if (middle === -1) middle = other;
      else groups.merge(other, middle);
    }
    if (middle === -1) {
      links.push({ part, from, to, law: whole });
      return;
    }
    const half = law(0.5) as Law;
    links.push({ part, from, to: middle, law: half }, { part, from: middle, to, law: half });
  });
  firstPort[loop.components.length] = ports.length;
  const tubePorts = new Int32Array(2 * loop.tubes.length);
  loop.tubes.forEach((tube, index) => {
    const from = indexOf.get(`${tube.from[0]}.${tube.from[1]}`) as number;
    const to = indexOf.get(`${tube.to[0]}.${tube.to[1]}`) as number;
    tubePorts[2 * index] = from;
    tubePorts[2 * index + 1] = to;
    if (shut.has(tube.id)) return;
    links.push({ part: loop.components.length + index, from, to, law: tubeLaw(tube, tubeLengthMm(loop, tube, find), fluid) });
  });
  const { of, count } = groups.number();
  return {
    nodeCount: count,
    links: links.map(({ part, from, to, law }) => ({ part, from: of[from] as number, to: of[to] as number, law })),
    ports: ports.map(({ key, heightMm }, index) => ({ key, heightMm, node: of[index] as number })),
    firstPort,
    flowPorts,
    tubePorts,
    pumpIds,
  };
}

/** Pumps whose pressure cannot be told. */
export const pumpsWithoutCurve = (loop: LoopFile): LoopComponent[] =>
  loop.components.filter(({ kind, curve }) => kind === 'pump' && !curve);
