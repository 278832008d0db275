import type { BrokenLine } from '../../base/numerics/broken.js';
import { segmentAt, slopeOf } from '../../base/numerics/broken.js';
import { FLOW } from './defaults.js';
import { addFriction, type TubeFriction } from './friction.js';
import type { HydraulicLink, HydraulicNetwork } from './network.js';

/** A link of a chain and whether the chain runs through it the way the link points (1) or against it (−1). */
export interface ChainStep {
  readonly link: number;
  readonly sign: 1 | -1;
}

interface SignedTable {
  readonly line: BrokenLine;
  readonly sign: 1 | -1;
  readonly scale: number;
}

/** Links one after another without a branch between them: they share one flow, so their losses are added once and for all. */
export interface Chain {
  readonly from: number;
  readonly to: number;
  readonly steps: readonly ChainStep[];
  readonly linear: number;
  readonly quadratic: number;
  /** tubes of one bore merged by length */
  readonly tubes: readonly TubeFriction[];
  readonly tables: readonly SignedTable[];
  readonly pumps: readonly (SignedTable & { readonly pump: number })[];
}

/** A network without dead ends, in chains. Nodes are those where three or more chains meet (or one of a lone ring). */
export interface ChainNetwork {
  readonly nodeCount: number;
  readonly chains: readonly Chain[];
  /** chain of each link, −1 where nothing can flow */
  readonly chainOfLink: Int32Array;
}

function mergeTubes(links: readonly HydraulicLink[]): TubeFriction[] {
  const byBore = new Map<number, { friction: TubeFriction; lengthMm: number; totalMm: number }>();
  for (const { law } of links) {
    if (law.kind !== 'tube') continue;
    const known = byBore.get(law.boreMm);
    if (known) known.totalMm += law.lengthMm;
    else byBore.set(law.boreMm, { friction: law.friction, lengthMm: law.lengthMm, totalMm: law.lengthMm });
  }
  return [...byBore.values()].map(({ friction, lengthMm, totalMm }) => ({
    ...friction,
    lossPerFactor: (friction.lossPerFactor * totalMm) / lengthMm,
    laminarSlope: (friction.laminarSlope * totalMm) / lengthMm,
  }));
}

function makeChain(network: HydraulicNetwork, from: number, to: number, steps: readonly ChainStep[]): Chain {
  const links = steps.map(({ link }) => network.links[link] as HydraulicLink);
  let linear = 0;
  let quadratic = 0;
  const tables: SignedTable[] = [];
  const pumps: (SignedTable & { pump: number })[] = [];
  links.forEach(({ law }, index) => {
    const { sign } = steps[index] as ChainStep;
    if (law.kind === 'quadratic') {
      linear += law.linear * law.scale;
      quadratic += law.quadratic * law.scale;
    } else if (law.kind === 'tube') quadratic += law.quadratic;
    else if (law.kind === 'table') tables.push({ line: law.line, sign, scale: law.scale });
    else pumps.push({ line: law.line, sign, scale: law.scale, pump: law.pump });
  });
  return { from, to, steps, linear, quadratic, tubes: mergeTubes(links), tables, pumps };
}

/** Loss minus gain along the chain at flow `q` (L/min) into `out[0]` (kPa), its slope into `out[1]`. Allocates nothing. */
export function evaluateChain(chain: Chain, speeds: Float64Array, q: number, out: Float64Array): void {
  const size = Math.abs(q);
  const direction = q < 0 ? -1 : 1;
  out[0] = (chain.linear + chain.quadratic * size) * size;
  out[1] = chain.linear + 2 * chain.quadratic * size;
  for (let index = 0; index < chain.tubes.length; index += 1) addFriction(chain.tubes[index] as TubeFriction, size, out);
  for (let index = 0; index < chain.tables.length; index += 1) {
    const { line, scale } = chain.tables[index] as SignedTable;
    const segment = segmentAt(line, size);
    const slope = slopeOf(line, segment);
    out[0] = (out[0] as number) + scale * ((line.y[segment] as number) + slope * (size - (line.x[segment] as number)));
    out[1] = (out[1] as number) + scale * slope;
  }
  out[0] = (out[0] as number) * direction;
  for (let index = 0; index < chain.pumps.length; index += 1) {
    const { line, sign, scale, pump } = chain.pumps[index] as Chain['pumps'][number];
    const speed = speeds[pump] as number;
    if (speed === 0) {
      out[0] = (out[0] as number) + scale * FLOW.standingPumpQuadratic * q * size;
      out[1] = (out[1] as number) + scale * 2 * FLOW.standingPumpQuadratic * size;
      continue;
    }
    const scaled = (sign * q) / speed;
    const segment = segmentAt(line, scaled);
    const slope = slopeOf(line, segment);
    const gain = (line.y[segment] as number) + slope * (scaled - (line.x[segment] as number));
    out[0] = (out[0] as number) - scale * sign * speed * speed * gain;
    out[1] = (out[1] as number) - scale * speed * slope;
  }
  if ((out[1] as number) < FLOW.leastSlope) out[1] = FLOW.leastSlope;
}

/** Links by node, without those that end blind: nothing flows where nothing can come back. */
function liveLinks({ nodeCount, links }: HydraulicNetwork): { byNode: Set<number>[]; live: Uint8Array } {
  const byNode = Array.from({ length: nodeCount }, () => new Set<number>());
  const live = new Uint8Array(links.length).fill(1);
  links.forEach(({ from, to }, link) => {
    if (from === to) return;
    (byNode[from] as Set<number>).add(link);
    (byNode[to] as Set<number>).add(link);
  });
  const blind = byNode.flatMap((set, node) => (set.size === 1 ? [node] : []));
  for (let node = blind.pop(); node !== undefined; node = blind.pop()) {
    const set = byNode[node] as Set<number>;
    const [link] = set;
    if (set.size !== 1 || link === undefined) continue;
    live[link] = 0;
    const { from, to } = links[link] as HydraulicLink;
    for (const end of [from, to]) {
      (byNode[end] as Set<number>).delete(link);
      if (end !== node && (byNode[end] as Set<number>).size === 1) blind.push(end);
    }
  }
  return { byNode, live };
}

/** Takes out dead ends and joins what follows one another, so that the solver meets only real branches. */
export function reduceToChains(network: HydraulicNetwork): ChainNetwork {
  const { byNode, live } = liveLinks(network);
  const chainOfLink = new Int32Array(network.links.length).fill(-1);
  const chains: Chain[] = [];
  const numbers = new Map<number, number>();
  const numberOf = (node: number): number => {
    if (!numbers.has(node)) numbers.set(node, numbers.size);
    return numbers.get(node) as number;
  };
  const walk = (start: number, firstLink: number): void => {
    const steps: ChainStep[] = [];
    let node = start;
    let next: number | undefined = firstLink;
    while (next !== undefined) {
      const link = network.links[next] as HydraulicLink;
      const sign = link.from === node ? 1 : -1;
      chainOfLink[next] = chains.length;
      steps.push({ link: next, sign });
      node = sign === 1 ? link.to : link.from;
      const around: Set<number> = byNode[node] as Set<number>;
      const came: number = next;
      next = node !== start && around.size === 2 ? [...around].find((other) => other !== came) : undefined;
    }
    chains.push(makeChain(network, numberOf(start), numberOf(node), steps));
  };
  const startFrom = (node: number): void => {
    for (const link of byNode[node] as Set<number>) if (chainOfLink[link] === -1) walk(node, link);
  };
  byNode.forEach((set, node) => {
    if (set.size > 2) startFrom(node);
  });
  // What is left are rings without a branch; any of their nodes will do as a start.
  byNode.forEach((set, node) => {
    if (set.size === 2) startFrom(node);
  });
  network.links.forEach((link, index) => {
    // A tube from a part's port to another port of the same lossless part is a ring of its own.
    if (link.from !== link.to || live[index] === 0) return;
    chainOfLink[index] = chains.length;
    chains.push(makeChain(network, numberOf(link.from), numberOf(link.to), [{ link: index, sign: 1 }]));
  });
  return { nodeCount: numbers.size, chains, chainOfLink };
}
