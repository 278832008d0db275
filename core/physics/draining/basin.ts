import { GEOMETRY } from '../geometry/defaults.js';
import { shareBelow, type TurnedBox } from '../geometry/levelCut.js';
import type { TurnedNetwork } from '../geometry/turned.js';
import type { Contents } from '../contents/contents.js';

/** mm to which the level of a basin is found */
const LEVEL_WITHIN_MM = 0.01;

/** mL of a node below a level. */
export function belowMl({ network, heightMm, boxes }: TurnedNetwork, node: number, levelMm: number): number {
  const ml = network.volumeMl[node] as number;
  const vessel = network.vesselOf[node] as number;
  if (vessel >= 0) return ml * shareBelow(boxes[vessel] as TurnedBox, levelMm);
  return (heightMm[node] as number) < levelMm ? ml : 0;
}

/** One body of liquid, filled from its bottom: nodes below a common spill level that stand in contact. */
export class Basin {
  private readonly vessels: readonly number[];
  /** heights of the other nodes, rising, and what all below each of them hold together */
  private readonly heights: Float64Array;
  private readonly belowEach: Float64Array;
  private readonly bottomMm: number;
  private readonly topMm: number;

  constructor(
    private readonly turned: TurnedNetwork,
    readonly nodes: readonly number[],
  ) {
    const { network, heightMm, boxes } = turned;
    this.vessels = nodes.filter((node) => (network.vesselOf[node] as number) >= 0);
    const others = nodes
      .filter((node) => (network.vesselOf[node] as number) < 0)
      .sort((a, b) => (heightMm[a] as number) - (heightMm[b] as number));
    this.heights = Float64Array.from(others, (node) => heightMm[node] as number);
    this.belowEach = new Float64Array(others.length + 1);
    others.forEach((node, index) => (this.belowEach[index + 1] = (this.belowEach[index] as number) + (network.volumeMl[node] as number)));
    const boxOf = (node: number): TurnedBox => boxes[network.vesselOf[node] as number] as TurnedBox;
    const lowest = others.length > 0 ? (this.heights[0] as number) : Infinity;
    const highest = others.length > 0 ? (this.heights.at(-1) as number) + GEOMETRY.levelMm : lowest;
    this.bottomMm = Math.min(lowest, ...this.vessels.map((node) => boxOf(node).bottomMm));
    this.topMm = Math.max(Number.isFinite(highest) ? highest : this.bottomMm, ...this.vessels.map((node) => boxOf(node).topMm));
  }

  /** mL below a level */
  heldMl(levelMm: number): number {
    let low = 0;
    let high = this.heights.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((this.heights[middle] as number) < levelMm) low = middle + 1;
      else high = middle;
    }
    return this.vessels.reduce((sum, node) => sum + belowMl(this.turned, node, levelMm), this.belowEach[low] as number);
  }

  /**
   * Spreads liquid over the nodes, lowest first.
   * @param levelMm the highest that it can stand; not finite: nothing bounds it
   */
  settle(ml: number, levelMm: number, into: Contents): void {
    if (ml <= 0) {
      for (const node of this.nodes) into[node] = 0;
      return;
    }
    let low = this.bottomMm;
    let high = Number.isFinite(levelMm) ? levelMm : this.topMm;
    for (let step = 0; step < 40 && high - low > LEVEL_WITHIN_MM; step += 1) {
      const level = (low + high) / 2;
      if (this.heldMl(level) < ml) low = level;
      else high = level;
    }
    const whole = this.heldMl(high);
    const scale = whole > 0 ? Math.min(1, ml / whole) : 0;
    for (const node of this.nodes) into[node] = belowMl(this.turned, node, high) * scale;
  }
}
