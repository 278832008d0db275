import { partFinder, tubeLengthMm, type LoopComponent, type LoopFile, type LoopTube } from '../loops/loopFile.js';
import { brokenLine, type BrokenLine } from './broken.js';
import { fittingK, FLOW, LPH_PER_LPM } from './defaults.js';
import { fittingQuadratic, prepareFriction, type Fluid, type TubeFriction } from './friction.js';

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

/** Ports merged where nothing is lost between them; links between what is left. */
export interface HydraulicNetwork {
  readonly nodeCount: number;
  readonly links: readonly HydraulicLink[];
  /** "component.port" → node */
  readonly nodeOfPort: ReadonlyMap<string, number>;
  /** pumps in the file's order */
  readonly pumpIds: readonly string[];
}

/** Merges nodes; every node ends up with the number of its group. */
class Groups {
  private readonly parent: number[] = [];
  add(): number {
    this.parent.push(this.parent.length);
    return this.parent.length - 1;
  }
  find(node: number): number {
    let root = node;
    while (this.parent[root] !== root) root = this.parent[root] as number;
    while (this.parent[node] !== root) [node, this.parent[node]] = [this.parent[node] as number, root];
    return root;
  }
  merge(a: number, b: number): void {
    this.parent[this.find(a)] = this.find(b);
  }
  /** group numbers 0 … count − 1 by node */
  number(): { of: Int32Array; count: number } {
    const numbers = new Map<number, number>();
    const of = Int32Array.from(this.parent, (_, node) => {
      const root = this.find(node);
      if (!numbers.has(root)) numbers.set(root, numbers.size);
      return numbers.get(root) as number;
    });
    return { of, count: numbers.size };
  }
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
  const groups = new Groups();
  const portNodes = new Map<string, number>();
  const links: HydraulicLink[] = [];
  const pumpIds: string[] = [];
  const find = partFinder(loop);
  loop.components.forEach((component, part) => {
    const nodes = new Map(Object.keys(component.ports).map((port) => [port, groups.add()]));
    for (const [port, node] of nodes) portNodes.set(`${component.id}.${port}`, node);
    if (component.kind === 'pump') pumpIds.push(component.id);
    if (shut.has(component.id)) return;
    const law = (scale: number): Law | null => componentLaw(component, pumpIds.length - 1, scale);
    const whole = component.flow ? law(1) : null;
    if (!whole || !component.flow) {
      const [first, ...others] = [...nodes.values()] as [number, ...number[]];
      for (const other of others) groups.merge(other, first);
      return;
    }
    const [from, to] = component.flow.map((port) => nodes.get(port) as number) as [number, number];
    const others = [...nodes].filter(([port]) => !component.flow?.includes(port)).map(([, node]) => node);
    if (others.length === 0) {
      links.push({ part, from, to, law: whole });
      return;
    }
    const half = law(0.5) as Law;
    const middle = others[0] as number;
    for (const other of others) groups.merge(other, middle);
    links.push({ part, from, to: middle, law: half }, { part, from: middle, to, law: half });
  });
  loop.tubes.forEach((tube, index) => {
    if (shut.has(tube.id)) return;
    const [from, to] = [tube.from, tube.to].map(([id, port]) => portNodes.get(`${id}.${port}`) as number) as [number, number];
    links.push({ part: loop.components.length + index, from, to, law: tubeLaw(tube, tubeLengthMm(loop, tube, find), fluid) });
  });
  const { of, count } = groups.number();
  return {
    nodeCount: count,
    links: links.map((link) => ({ ...link, from: of[link.from] as number, to: of[link.to] as number })),
    nodeOfPort: new Map([...portNodes].map(([port, node]) => [port, of[node] as number])),
    pumpIds,
  };
}

/** Pumps whose pressure cannot be told. */
export const pumpsWithoutCurve = (loop: LoopFile): LoopComponent[] =>
  loop.components.filter(({ kind, curve }) => kind === 'pump' && !curve);
