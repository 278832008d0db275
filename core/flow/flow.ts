import { STANDING, upVector } from '../geometry/orientation.js';
import { levelAtShare, turnBox } from '../geometry/levelCut.js';
import { reservoirMarks } from '../loops/marks.js';
import type { LoopComponent, LoopFile, Point } from '../loops/loopFile.js';
import { valueAt } from './broken.js';
import { reduceToChains, type ChainNetwork } from './chains.js';
import { FLOW, LPH_PER_LPM } from './defaults.js';
import { addFriction, type Fluid } from './friction.js';
import { buildHydraulics, type HydraulicLink, type HydraulicNetwork } from './network.js';
import { FlowSolver, type SolverOutcome } from './solver.js';

export interface LinkFlow {
  /** positive in the component's `flow` direction, or from a tube's `from` to its `to` */
  readonly flowLph: number;
  /** loss of head along the link, hydrostatic pressure excluded; negative where a pump adds */
  readonly dropKpa: number;
}

export interface FlowResult extends SolverOutcome {
  readonly links: ReadonlyMap<string, LinkFlow>;
  /** gauge pressure at "component.port", hydrostatic pressure included */
  readonly portGaugeKpa: ReadonlyMap<string, number>;
}

export interface FlowConditions {
  readonly fluid: Fluid;
  /** 0 … 1 by pump id; a pump that is not named runs at its own `speed`, or at 1 */
  readonly speeds: Readonly<Record<string, number>>;
  /** ids of components and tubes that are shut */
  readonly closed: readonly string[];
}

/** Loss in kPa of one link at `q` L/min along it. */
function dropOf({ law }: HydraulicLink, q: number, speeds: Float64Array): number {
  const size = Math.abs(q);
  const direction = q < 0 ? -1 : 1;
  if (law.kind === 'quadratic') return direction * law.scale * (law.linear + law.quadratic * size) * size;
  if (law.kind === 'table') return direction * law.scale * valueAt(law.line, size);
  if (law.kind === 'pump') {
    const speed = speeds[law.pump] as number;
    if (speed === 0) return law.scale * FLOW.standingPumpQuadratic * q * size;
    return -law.scale * speed * speed * valueAt(law.line, q / speed);
  }
  const out = new Float64Array(2);
  addFriction(law.friction, size, out);
  return direction * ((out[0] as number) + law.quadratic * size * size);
}

/** kPa of a column: ρ·g·h with h in mm. */
export const columnKpa = (densityKgM3: number, heightMm: number): number => densityKgM3 * FLOW.gravity * heightMm * 1e-6;

/** Height in mm of a reservoir's surface at its fill mark, upright; without a box, that of its highest port. */
export function surfaceMm(reservoir: LoopComponent): number {
  if (!reservoir.box || reservoir.volume_ml === 0) return Math.max(...Object.values(reservoir.ports).map(([, y]) => y));
  return levelAtShare(turnBox(reservoir.box, upVector(STANDING.upright)), reservoirMarks(reservoir).fillMarkMl / reservoir.volume_ml);
}

/** A node of known gauge pressure and the height it is known at. */
interface Reference {
  readonly node: number;
  readonly heightMm: number;
}

const portsOf = (component: LoopComponent): [string, Point][] => Object.entries(component.ports);

/**
 * Where pressures are counted from, best first: every reservoir's surface, then every pump's intake, then any part's
 * highest port. The first of each connected piece decides.
 */
function references(loop: LoopFile, { nodeOfPort }: HydraulicNetwork): Reference[] {
  const at = (component: LoopComponent, port: string, heightMm: number): Reference => ({
    node: nodeOfPort.get(`${component.id}.${port}`) as number,
    heightMm,
  });
  const ofKind = (kind: string): LoopComponent[] => loop.components.filter((component) => component.kind === kind);
  const reservoirs = ofKind('reservoir').flatMap((part) => portsOf(part).map(([port]) => at(part, port, surfaceMm(part))));
  const pumps = ofKind('pump').map((pump) => {
    const intake = pump.flow?.[0] ?? (Object.keys(pump.ports)[0] as string);
    return at(pump, intake, (pump.ports[intake] as Point)[1]);
  });
  const others = loop.components
    .flatMap((part) => portsOf(part).map(([port, [, y]]) => at(part, port, y)))
    .sort((a, b) => b.heightMm - a.heightMm);
  return [...reservoirs, ...pumps, ...others];
}

/**
 * Total pressure p + ρgy of every node in kPa, so that it falls by each link's loss. Walks out from the references;
 * a piece cut off by something shut has a reference of its own.
 */
function totalPressures(loop: LoopFile, network: HydraulicNetwork, drops: Float64Array, densityKgM3: number): Float64Array {
  const total = new Float64Array(network.nodeCount).fill(Number.NaN);
  const around = Array.from({ length: network.nodeCount }, (): number[] => []);
  network.links.forEach(({ from, to }, link) => {
    around[from]?.push(link);
    around[to]?.push(link);
  });
  for (const { node: start, heightMm } of references(loop, network)) {
    if (!Number.isNaN(total[start])) continue;
    total[start] = columnKpa(densityKgM3, heightMm);
    const waiting = [start];
    for (let node = waiting.pop(); node !== undefined; node = waiting.pop()) {
      for (const index of around[node] as number[]) {
        const link = network.links[index] as HydraulicLink;
        const forwards = link.from === node;
        const other = forwards ? link.to : link.from;
        if (!Number.isNaN(total[other])) continue;
        total[other] = (total[node] as number) + (forwards ? -1 : 1) * (drops[index] as number);
        waiting.push(other);
      }
    }
  }
  return total;
}

/** A loop made ready for repeated solving: another pump speed costs a few microseconds, not a new network. */
export interface PreparedFlow {
  readonly loop: LoopFile;
  readonly fluid: Fluid;
  readonly network: HydraulicNetwork;
  readonly chained: ChainNetwork;
  readonly solver: FlowSolver;
  readonly shut: ReadonlySet<string>;
}

export function prepareFlow(loop: LoopFile, fluid: Fluid, closed: readonly string[] = []): PreparedFlow {
  const shut = new Set(closed);
  const network = buildHydraulics(loop, fluid, shut);
  const chained = reduceToChains(network);
  return { loop, fluid, network, chained, solver: new FlowSolver(chained), shut };
}

/** 0 … 1 by pump, in the network's order. */
export function pumpSpeeds({ loop, network }: PreparedFlow, speeds: Readonly<Record<string, number>>): Float64Array {
  const pumps = loop.components.filter(({ kind }) => kind === 'pump');
  return Float64Array.from(network.pumpIds, (id, index) =>
    Object.hasOwn(speeds, id) ? (speeds[id] as number) : (pumps[index]?.speed ?? 1),
  );
}

/** L/min by link. */
function flowsByLink({ network, chained, solver }: PreparedFlow): Float64Array {
  const flows = new Float64Array(network.links.length);
  chained.chains.forEach(({ steps }, chain) => {
    for (const { link, sign } of steps) flows[link] = sign * (solver.flowLpm[chain] as number);
  });
  return flows;
}

/** L/min into every port from the tubes there, by "component.port"; negative where it leaves. */
function portInflows({ loop }: PreparedFlow, tubeFlow: (tube: number) => number): Map<string, number> {
  const inflows = new Map<string, number>();
  const add = ([id, port]: readonly [string, string], flow: number): void => {
    const key = `${id}.${port}`;
    inflows.set(key, (inflows.get(key) ?? 0) + flow);
  };
  loop.tubes.forEach(({ from, to }, index) => {
    add(from, -tubeFlow(index));
    add(to, tubeFlow(index));
  });
  return inflows;
}

/** What a component carries, loss or no loss: the flow into its `in` port; without a direction, all that comes in. */
function throughFlow(component: LoopComponent, inflows: ReadonlyMap<string, number>): number {
  const into = (port: string): number => inflows.get(`${component.id}.${port}`) ?? 0;
  if (component.flow) return into(component.flow[0]);
  return Object.keys(component.ports).reduce((sum, port) => sum + Math.max(0, into(port)), 0);
}

/** Solves and reports. Flows in L/h, pressures in kPa. */
export function solvePrepared(prepared: PreparedFlow, speeds: Readonly<Record<string, number>>): FlowResult {
  const { loop, network, fluid, shut } = prepared;
  const running = pumpSpeeds(prepared, speeds);
  const outcome = prepared.solver.solve(running);
  const flows = flowsByLink(prepared);
  const drops = Float64Array.from(network.links, (link, index) => dropOf(link, flows[index] as number, running));
  const total = totalPressures(loop, network, drops, fluid.densityKgM3);
  const partFlow = new Float64Array(loop.components.length + loop.tubes.length);
  network.links.forEach(({ part }, index) => (partFlow[part] = flows[index] as number));
  const headAt = (id: string, port: string): number => total[network.nodeOfPort.get(`${id}.${port}`) as number] as number;
  const links = new Map<string, LinkFlow>();
  const inflows = portInflows(prepared, (tube) => partFlow[loop.components.length + tube] as number);
  loop.components.forEach((component) => {
    const through = throughFlow(component, inflows);
    const [from, to] = component.flow ?? [];
    const dropKpa = from === undefined || to === undefined ? 0 : headAt(component.id, from) - headAt(component.id, to);
    links.set(component.id, { flowLph: shut.has(component.id) ? 0 : LPH_PER_LPM * through, dropKpa });
  });
  loop.tubes.forEach(({ id, from, to }, index) => {
    const flow = partFlow[loop.components.length + index] as number;
    links.set(id, { flowLph: LPH_PER_LPM * flow, dropKpa: headAt(...from) - headAt(...to) });
  });
  const portGaugeKpa = new Map<string, number>();
  for (const component of loop.components) {
    for (const [port, [, y]] of portsOf(component)) {
      portGaugeKpa.set(`${component.id}.${port}`, headAt(component.id, port) - columnKpa(fluid.densityKgM3, y));
    }
  }
  return { ...outcome, links, portGaugeKpa };
}

/** Steady flow of a loop. Before: checked; pumps that run have curves. */
export function solveFlow(loop: LoopFile, { fluid, speeds, closed }: FlowConditions): FlowResult {
  return solvePrepared(prepareFlow(loop, fluid, closed), speeds);
}
