import { GEOMETRY } from '../geometry/defaults.js';
import type { TurnedNetwork } from '../geometry/turned.js';
import { floodFullLoop, leavingMl } from './flood.js';
import { nodesOf, openUp, type OpeningSetup } from './openings.js';
import { spillLevels } from './spillLevels.js';

/** What would leave a full loop at an opening that is no drain. mL. */
export interface Spill {
  readonly port: string;
  /** with every drain shut: cap it before you turn */
  readonly volumeMl: number;
  /** while the drains stand open: what runs here rather than there */
  readonly withDrainsOpenMl: number;
  /** with the drains shut, held by nothing but the want of air: follows when the machine is knocked */
  readonly heldMl: number;
}

/** mL; less than this at an opening is a drop on a towel, not a spill to warn of (contract) */
const LEAST_SPILL_ML = 1;

/** mL that leave at one opening when it is the only drain and the other ones give air: what runs, and what is held. */
function aloneMl(
  turned: TurnedNetwork,
  port: string,
  others: readonly string[],
  closed: readonly string[],
): { runs: number; held: number } {
  const flood = floodFullLoop(turned, openUp(turned.network, { open: others, drains: [port], closed }));
  let runs = 0;
  let held = 0;
  for (let node = 0; node < turned.network.size; node += 1) {
    const ml = leavingMl(turned, flood, node);
    if (flood.gas[node] === Number.NEGATIVE_INFINITY) held += ml;
    else runs += ml;
  }
  return { runs, held };
}

/**
 * mL by opening while all of them stand open and give air. Liquid goes where its lowest crest leads; where crests are
 * equal, to the lower opening, of equally high ones to the one that is no drain, then to the first named.
 */
function togetherMl(turned: TurnedNetwork, { open, drains, closed }: OpeningSetup): ReadonlyMap<string, number> {
  const { network, heightMm } = turned;
  const isDrain = new Set(drains);
  const names = [...new Set([...open, ...drains])];
  const { cuts, drains: outlets, openings } = openUp(network, { open: [], drains: names, closed });
  const flood = floodFullLoop(turned, { cuts, drains: outlets, openings });
  const ways = names
    .map((name) => {
      const nodes = nodesOf(network, name);
      const lowMm = Math.min(...nodes.map((node) => heightMm[node] as number));
      return { name, lowMm, drains: isDrain.has(name), levelMm: spillLevels(turned, cuts, nodes).levelMm };
    })
    // the order in which equals are preferred; the sort is stable, so the first named stays first
    .sort((a, b) => a.lowMm - b.lowMm || Number(a.drains) - Number(b.drains));
  const sums = new Map(names.map((name) => [name, 0]));
  for (let node = 0; node < network.size; node += 1) {
    if (flood.gas[node] === Number.NEGATIVE_INFINITY) continue;
    const ml = leavingMl(turned, flood, node);
    if (ml <= 0) continue;
    const least = flood.levelMm[node] as number;
    const way = ways.find(({ levelMm }) => (levelMm[node] as number) <= least + GEOMETRY.levelMm);
    if (way) sums.set(way.name, (sums.get(way.name) as number) + ml);
  }
  return sums;
}

/** What leaves at the openings that are no drains, those where it is more than a drop. Before: `drains` is not empty. */
export function findSpills(turned: TurnedNetwork, { open, drains, closed }: OpeningSetup): Spill[] {
  const isDrain = new Set(drains);
  const others = [...new Set(open)].filter((name) => !isDrain.has(name));
  if (others.length === 0) return [];
  const together = togetherMl(turned, { open: others, drains, closed });
  return others
    .map((port): Spill => {
      const alone = aloneMl(turned, port, others.filter((name) => name !== port), closed); // prettier-ignore
      return { port, volumeMl: alone.runs, withDrainsOpenMl: together.get(port) ?? 0, heldMl: alone.held };
    })
    .filter(({ volumeMl, withDrainsOpenMl }) => Math.max(volumeMl, withDrainsOpenMl) > LEAST_SPILL_ML);
}
