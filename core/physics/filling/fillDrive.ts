import type { Fluid } from '../../machine/liquids/fluids.js';
import type { LoopComponent, LoopFile } from '../../machine/loop-file/loopFile.js';
import { findTrappedAir } from '../air/pockets.js';
import { sweepNodes } from '../air/sweep.js';
import type { Contents } from '../contents/contents.js';
import { frontDrive, type Filling, type FrontDrive } from './frontMoves.js';

/** The way of the front through a loop whose likely gas stays where it is. */
export interface FillDrive {
  readonly drive: FrontDrive;
  /** mL of gas that radiators' cores carry down by estimate: it may stay as well */
  readonly byCoreMl: number;
}

/** The first reservoir of a file, which is the one to fill from where nothing else is said. */
export const firstReservoir = (loop: LoopFile): LoopComponent => loop.components.find(({ kind }) => kind === 'reservoir') as LoopComponent;

/**
 * Before: a checked loop; the reservoir has a box, pumps have curves.
 * @param missedShare of what radiators' cores carry down by estimate, that they do not
 */
export function fillDrive(loop: LoopFile, fluid: Fluid, reservoir: LoopComponent, missedShare = 0): FillDrive {
  let byCoreMl = 0;
  const drive = frontDrive(loop, fluid, reservoir, (turned, { links }) => {
    const { pockets, gasMl } = findTrappedAir(turned);
    const swept = sweepNodes(turned, loop, pockets, links);
    byCoreMl = swept.byCoreMl.reduce((sum, ml) => sum + ml, 0);
    return gasMl.map((ml, node) => ml - (swept.sweptMl[node] as number) + missedShare * (swept.byCoreMl[node] as number));
  });
  return { drive, byCoreMl };
}

/** The wetted cells as contents of nodes, with what stands in the reservoir. */
export function contentsOf({ cells, wettedMl }: Filling, { network, reservoirNode }: FrontDrive, reservoirMl: number): Contents {
  const contents = new Float64Array(network.size);
  cells.forEach(({ node }, index) => (contents[node] = (contents[node] as number) + (wettedMl[index] as number)));
  contents[reservoirNode] = reservoirMl;
  return contents;
}
