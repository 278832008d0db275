import { findTubeMaterial } from '../materials/tubes.js';
import { distanceMm, portPosition, tubeLengthMm, tubesByHand, type LoopComponent, type LoopFile } from './loopFile.js';

/** How far a block comes off its chip with the loop closed. */
export interface Swing {
  readonly part: LoopComponent;
  /** mm until the shortest of its soft tubes is straight; null: it stands on rigid tube, which gives nothing, or on none */
  readonly mm: number | null;
}

/** What its tubes give each block: the least by which one of them is longer than the straight line between its ports. */
export const swings = (loop: LoopFile): Swing[] =>
  loop.components.filter(({ kind }) => kind === 'block').map((part) => ({ part, mm: givenTo(loop, part.id) }));

function givenTo(loop: LoopFile, id: string): number | null {
  const own = tubesByHand(loop).filter(({ from, to }) => from[0] === id || to[0] === id);
  if (own.length === 0 || own.some(({ material }) => findTubeMaterial(material)?.soft === false)) return null;
  return Math.min(
    ...own.map((tube) => Math.max(0, tubeLengthMm(loop, tube) - distanceMm(portPosition(loop, tube.from), portPosition(loop, tube.to)))),
  );
}
