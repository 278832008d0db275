import { readdirSync, readFileSync } from 'node:fs';
import { generateSpatialLoop } from '../core/machine/loop-file/generatedLoops.js';
import { readLoopFile } from '../core/machine/loop-file/loopFileSchema.js';
import type { LoopFile } from '../core/machine/loop-file/loopFile.js';
import { adviseDraining } from '../core/physics/draining/advice.js';
import { DRAIN_POLICY } from '../core/physics/draining/defaults.js';
import { buildNetwork } from '../core/physics/geometry/network.js';

/** How good the advised plan is, against a search that nobody would wait for. */
export interface PlanQuality {
  readonly loops: number;
  /** share of a loop's volume that the advised plan leaves more than the wide search's */
  readonly worst: number;
  readonly median: number;
  /** loops within three per cent */
  readonly within: number;
  /** time of the advised search in that of the wide one */
  readonly timeShare: number;
}

const WIDE = { width: { beam: 200, looksClosely: 12, joints: 12 }, cellMm: null } as const;
const GENERATED = 40;

/** The example loops and generated ones: same policy, same inlets, certain mL, on the contract's cells. */
export function planQuality(): PlanQuality {
  const examples = readdirSync('examples')
    .filter((name) => name.endsWith('.json'))
    .map((name): LoopFile => readLoopFile(JSON.parse(readFileSync(`examples/${name}`, 'utf8'))));
  const loops = [...examples, ...Array.from({ length: GENERATED }, (_, nth) => generateSpatialLoop(nth + 1))];
  let [ownMs, wideMs] = [0, 0];
  const gaps = loops.map((loop) => {
    const network = buildNetwork(loop);
    const start = performance.now();
    const own = adviseDraining(loop, network);
    const between = performance.now();
    const wide = adviseDraining(loop, network, DRAIN_POLICY, undefined, WIDE);
    ownMs += between - start;
    wideMs += performance.now() - between;
    return (own.leftMl - wide.leftMl) / own.wholeMl;
  });
  const sorted = gaps.sort((a, b) => a - b);
  return {
    loops: loops.length,
    worst: sorted.at(-1) as number,
    median: sorted[Math.floor(sorted.length / 2)] as number,
    within: gaps.filter((gap) => gap <= 0.03).length,
    timeShare: ownMs / wideMs,
  };
}
