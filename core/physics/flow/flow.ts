import type { Fluid } from '../../machine/liquids/fluids.js';
import { STANDING, upVector } from '../../machine/loop-file/orientation.js';
import { levelAtShare, turnBox } from '../geometry/levelCut.js';
import { reservoirMarks } from '../../machine/loop-file/marks.js';
import type { LoopComponent, LoopFile } from '../../machine/loop-file/loopFile.js';
import { valueAt } from '../../base/numerics/broken.js';
import { reduceToChains, type ChainNetwork } from './chains.js';
import { FLOW, LPH_PER_LPM } from './defaults.js';
import { addFriction } from './friction.js';
import { buildHydraulics, type HydraulicLink, type HydraulicNetwork, type HydraulicPort } from './network.js';
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

/**
 * Total pressure p + ρgy of every node in kPa, so that it falls by each link's loss. Counted from every reservoir's
 * surface, then from every pump's intake, then from any part's highest port: the first in each connected piece decides;
 * a piece cut off by something shut has a reference of its own.
 */
function totalPressures({ loop, network, fluid }: PreparedFlow, drops: Float64Array): Float64Array {
  const total = new Float64Array(network.nodeCount).fill(Number.NaN);
  const around = linksByNode(network);
  const waiting: number[] = [];
  let missing = network.nodeCount;
  const spread = (start: number, heightMm: number): void => {
    if (!Number.isNaN(total[start])) return;
    total[start] = columnKpa(fluid.densityKgM3, heightMm);
    missing -= 1;
    waiting.push(start);
    for (let node = waiting.pop(); node !== undefined; node = waiting.pop()) {
      for (let at = around.starts[node] as number; at < (around.starts[node + 1] as number); at += 1) {
        const index = around.links[at] as number;
        const link = network.links[index] as HydraulicLink;
        const forwards = link.from === node;
        const other = forwards ? link.to : link.from;
        if (!Number.isNaN(total[other])) continue;
        total[other] = (total[node] as number) + (forwards ? -1 : 1) * (drops[index] as number);
        missing -= 1;
        waiting.push(other);
      }
    }
  };
  const portsOf = (part: number): HydraulicPort[] => network.ports.slice(network.firstPort[part], network.firstPort[part + 1]);
  loop.components.forEach((component, part) => {
    if (component.kind !== 'reservoir') return;
    const surface = surfaceMm(component);
    for (const { node } of portsOf(part)) spread(node, surface);
  });
  loop.components.forEach((component, part) => {
    if (missing === 0 || component.kind !== 'pump') return;
    const intake = network.ports[Math.max(network.flowPorts[2 * part] as number, network.firstPort[part] as number)] as HydraulicPort;
    spread(intake.node, intake.heightMm);
  });
  if (missing > 0) for (const { node, heightMm } of [...network.ports].sort((a, b) => b.heightMm - a.heightMm)) spread(node, heightMm);
  return total;
}

function linksByNode({ nodeCount, links }: HydraulicNetwork): { starts: Int32Array; links: Int32Array } {
  const starts = new Int32Array(nodeCount + 1);
  for (const { from, to } of links) {
    starts[from + 1] = (starts[from + 1] as number) + 1;
    starts[to + 1] = (starts[to + 1] as number) + 1;
  }
  for (let node = 0; node < nodeCount; node += 1) starts[node + 1] = (starts[node + 1] as number) + (starts[node] as number);
  const next = starts.slice(0, nodeCount);
  const byNode = new Int32Array(2 * links.length);
  links.forEach(({ from, to }, link) => {
    for (const node of [from, to]) {
      byNode[next[node] as number] = link;
      next[node] = (next[node] as number) + 1;
    }
  });
  return { starts, links: byNode };
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
  return { loop, fluid, network, chained, solver: new FlowSolver(chained, network.pumpIds.length), shut };
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

/** L/min into every port from the tubes there, by port index; negative where it leaves. */
function portInflows({ network, loop }: PreparedFlow, partFlow: Float64Array): Float64Array {
  const inflows = new Float64Array(network.ports.length);
  for (let tube = 0; tube < loop.tubes.length; tube += 1) {
    const flow = partFlow[loop.components.length + tube] as number;
    const [from, to] = [network.tubePorts[2 * tube] as number, network.tubePorts[2 * tube + 1] as number];
    inflows[from] = (inflows[from] as number) - flow;
    inflows[to] = (inflows[to] as number) + flow;
  }
  return inflows;
}

/** What a component carries, loss or no loss: the flow into its `in` port; without a direction, all that comes in. */
function throughFlow({ firstPort, flowPorts }: HydraulicNetwork, part: number, inflows: Float64Array): number {
  const inPort = flowPorts[2 * part] as number;
  if (inPort >= 0) return inflows[inPort] as number;
  let sum = 0;
  for (let port = firstPort[part] as number; port < (firstPort[part + 1] as number); port += 1) sum += Math.max(0, inflows[port] as number);
  return sum;
}

/** Solves and reports. Flows in L/h, pressures in kPa. */
export function solvePrepared(prepared: PreparedFlow, speeds: Readonly<Record<string, number>>): FlowResult {
  const { loop, network, fluid, shut } = prepared;
  const running = pumpSpeeds(prepared, speeds);
  const outcome = prepared.solver.solve(running);
  const flows = flowsByLink(prepared);
  const drops = Float64Array.from(network.links, (link, index) => dropOf(link, flows[index] as number, running));
  const total = totalPressures(prepared, drops);
  const partFlow = new Float64Array(loop.components.length + loop.tubes.length);
  network.links.forEach(({ part }, index) => (partFlow[part] = flows[index] as number));
  const headAt = (port: number): number => total[(network.ports[port] as HydraulicPort).node] as number;
  const between = (pairs: Int32Array, index: number): number => {
    const [from, to] = [pairs[2 * index] as number, pairs[2 * index + 1] as number];
    return from < 0 ? 0 : headAt(from) - headAt(to);
  };
  const links = new Map<string, LinkFlow>();
  const inflows = portInflows(prepared, partFlow);
  loop.components.forEach(({ id }, part) => {
    const through = shut.has(id) ? 0 : throughFlow(network, part, inflows);
    links.set(id, { flowLph: LPH_PER_LPM * through, dropKpa: between(network.flowPorts, part) });
  });
  loop.tubes.forEach(({ id }, index) => {
    const flow = partFlow[loop.components.length + index] as number;
    links.set(id, { flowLph: LPH_PER_LPM * flow, dropKpa: between(network.tubePorts, index) });
  });
  const portGaugeKpa = new Map<string, number>();
  for (let port = 0; port < network.ports.length; port += 1) {
    const { key, heightMm } = network.ports[port] as HydraulicPort;
    portGaugeKpa.set(key, headAt(port) - columnKpa(fluid.densityKgM3, heightMm));
  }
  return { end: outcome.end, steps: outcome.steps, links, portGaugeKpa };
}

/** Steady flow of a loop. Before: checked; pumps that run have curves. */
export function solveFlow(loop: LoopFile, { fluid, speeds, closed }: FlowConditions): FlowResult {
  return solvePrepared(prepareFlow(loop, fluid, closed), speeds);
}

/** `solvePrepared` with every pump at one speed, 0 … 1. */
export const solveAtSpeed = (prepared: PreparedFlow, speed: number): FlowResult =>
  solvePrepared(prepared, Object.fromEntries(prepared.network.pumpIds.map((id) => [id, speed])));
