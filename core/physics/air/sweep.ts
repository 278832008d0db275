import { FLOW } from '../flow/defaults.js';
import { downstreamNodes, LEAST_FLOW_LPH } from '../flow/downstream.js';
import type { LinkFlow } from '../flow/flow.js';
import { GEOMETRY } from '../geometry/defaults.js';
import { nodeDistanceMm } from '../geometry/network.js';
import { vesselAboveMl, type TurnedNetwork } from '../geometry/turned.js';
import type { LoopComponent, LoopFile, LoopTube } from '../../machine/loop-file/loopFile.js';
import type { AirPocket } from './pockets.js';
import { staysInCore } from './radiatorCore.js';

/** What the running pump does to a pocket. mL */
export interface SweptPocket {
  readonly sweptMl: number;
  /** likely; in a radiator what its core keeps at this flow */
  readonly staysMl: number;
  /** at most: as if no radiator's core carried gas down */
  readonly mayStayMl: number;
}

/**
 * Velocity in m/s from which a full pipe that falls at an angle carries its gas down with it:
 * v/√(gD) ≥ 0.25·√(sin θ) + 0.825 (Wisner, Mohsen & Kouwen 1975).
 */
export function clearingVelocity(boreMm: number, sine: number): number {
  return (0.25 * Math.sqrt(sine) + 0.825) * Math.sqrt((FLOW.gravity * boreMm) / 1000);
}

/** m/s in a bore */
export const velocityIn = (boreMm: number, flowLph: number): number => flowLph / 3.6e6 / ((Math.PI / 4) * (boreMm / 1000) ** 2);

/** Walks with the flow, node by node, and remembers from where gas gets as far as the next vessel. */
class Downstream {
  /** 0 not asked, 1 being asked, 2 cleared, 3 gas stops on the way */
  private readonly known: Uint8Array;
  private readonly components: number;
  private readonly next: (node: number) => number[];

  constructor(
    private readonly turned: TurnedNetwork,
    private readonly loop: LoopFile,
    private readonly flows: ReadonlyMap<string, LinkFlow>,
  ) {
    this.known = new Uint8Array(turned.network.size);
    this.components = loop.components.length;
    this.next = downstreamNodes(turned.network, loop, (part) => this.flowOf(part));
  }

  private tubeAt(node: number): LoopTube | undefined {
    return this.loop.tubes[(this.turned.network.part[node] as number) - this.components];
  }

  private flowOf(part: number): number {
    return this.flows.get(this.turned.network.partIds[part] as string)?.flowLph ?? 0;
  }

  /** True when the flow carries gas from this node as far as the next vessel. Without flow, or against a stretch too steep, it does not. */
  clears(start: number): boolean {
    const { network } = this.turned;
    const stack = [start];
    while (stack.length > 0) {
      const node = stack[stack.length - 1] as number;
      const state = this.known[node] as number;
      if (state >= 2) {
        stack.pop();
        continue;
      }
      const ahead = this.next(node);
      const isHub = node !== start && (network.vesselOf[node] as number) >= 0;
      if (isHub) this.known[node] = 2;
      else if (ahead.length === 0 || ahead.some((other) => this.blocks(node, other))) this.known[node] = 3;
      else if (state === 0) {
        this.known[node] = 1;
        stack.push(...ahead.filter((other) => this.known[other] === 0));
        continue;
      } else this.known[node] = ahead.some((other) => this.known[other] === 3) ? 3 : 2;
      stack.pop();
    }
    const answer = this.known[start] === 2;
    // a vessel where gas starts is one where other gas ends
    if ((network.vesselOf[start] as number) >= 0) this.known[start] = 0;
    return answer;
  }

  /** A stretch of tube that falls and is too slow to carry gas down. */
  private blocks(node: number, other: number): boolean {
    const { network, heightMm } = this.turned;
    const tube = this.tubeAt(node);
    if (!tube || network.part[node] !== network.part[other]) return false;
    const fallMm = (heightMm[node] as number) - (heightMm[other] as number);
    const lengthMm = nodeDistanceMm(network, node, other);
    if (fallMm <= 0 || lengthMm === 0) return false;
    const sine = Math.min(1, fallMm / lengthMm);
    // level within the tolerance over a cell is level
    if (sine * GEOMETRY.cellMm < GEOMETRY.levelMm) return false;
    return velocityIn(tube.bore_mm, Math.abs(this.flowOf(network.part[node] as number))) < clearingVelocity(tube.bore_mm, sine);
  }
}

/** mm; the highest port the flow uses: gas above it is out of the flow's reach. */
function highestFlowPortMm(turned: TurnedNetwork, component: LoopComponent): number {
  const ports = component.flow ?? Object.keys(component.ports);
  return Math.max(...ports.map((port) => turned.heightMm[turned.network.ports.get(`${component.id}.${port}`) as number] as number));
}

/** Gas of a pocket in one vessel, by where it is: between the sill and the highest flow port, and above that. mL */
function gasInVessel(
  turned: TurnedNetwork,
  component: LoopComponent,
  vessel: number,
  sillMm: number,
): { reachedMl: number; aboveMl: number } {
  const gasMl = vesselAboveMl(turned, vessel, sillMm);
  const aboveMl = Math.min(gasMl, vesselAboveMl(turned, vessel, highestFlowPortMm(turned, component)));
  return { reachedMl: gasMl - aboveMl, aboveMl };
}

/** Gas of pockets by node: what the flow carries away, and what of that only a radiator's core does. mL */
export interface SweptNodes {
  readonly sweptMl: Float64Array;
  readonly byCoreMl: Float64Array;
}

/**
 * What the flow carries away of the gas in pockets, node by node. In a vessel with flow the gas between the sill and its
 * highest flow port leaves; above it all stays, in a radiator what its core keeps. In every other part it leaves if
 * liquid flows and every falling stretch of tube downstream, as far as the next vessel, is cleared (contract, `air`).
 */
export function sweepNodes(
  turned: TurnedNetwork,
  loop: LoopFile,
  pockets: readonly AirPocket[],
  flows: ReadonlyMap<string, LinkFlow>,
): SweptNodes {
  const { network } = turned;
  const downstream = new Downstream(turned, loop, flows);
  const sweptMl = new Float64Array(network.size);
  const byCoreMl = new Float64Array(network.size);
  for (const { nodes, sillMm } of pockets) {
    for (const node of nodes) {
      const vessel = network.vesselOf[node] as number;
      if (vessel < 0) {
        const ml = network.volumeMl[node] as number;
        if (ml > 0 && downstream.clears(node)) sweptMl[node] = ml;
        continue;
      }
      const component = loop.components[network.part[node] as number] as LoopComponent;
      const flowLph = Math.abs(flows.get(component.id)?.flowLph ?? 0);
      if (flowLph < LEAST_FLOW_LPH) continue;
      const { reachedMl, aboveMl } = gasInVessel(turned, component, vessel, sillMm);
      const carriedMl = component.kind === 'radiator' ? aboveMl - staysInCore(component, aboveMl, flowLph) : 0;
      sweptMl[node] = reachedMl + carriedMl;
      byCoreMl[node] = carriedMl;
    }
  }
  return { sweptMl, byCoreMl };
}

/** Splits pockets into what the flow carries away and what stays: {@link sweepNodes}, pocket by pocket. */
export function sweepPockets(
  turned: TurnedNetwork,
  loop: LoopFile,
  pockets: readonly AirPocket[],
  flows: ReadonlyMap<string, LinkFlow>,
): SweptPocket[] {
  const { sweptMl: swept, byCoreMl } = sweepNodes(turned, loop, pockets, flows);
  return pockets.map(({ nodes, volumeMl }) => {
    const sum = (of: Float64Array): number => nodes.reduce((ml, node) => ml + (of[node] as number), 0);
    const sweptMl = sum(swept);
    const staysMl = Math.max(0, volumeMl - sweptMl);
    return { sweptMl, staysMl, mayStayMl: staysMl + sum(byCoreMl) };
  });
}
