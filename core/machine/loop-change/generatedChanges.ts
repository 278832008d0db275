import type { Random } from '../../base/random/random.js';
import { bypassPart, cannotBypass } from '../drawing/bypass.js';
import { portPosition, tubesByHand, type LoopComponent, type LoopFile, type LoopTube, type Point } from '../loop-file/loopFile.js';

/** Changes of a loop made by chance, for tests and the led technician. */

const mean = (one: Point, other: Point): Point => one.map((mm, axis) => Math.round((mm + (other[axis] as number)) / 2)) as unknown as Point;

/** One more block in the middle of a tube. */
function enlarged(loop: LoopFile, tube: LoopTube, random: Random): LoopFile {
  const at = mean(portPosition(loop, tube.from), portPosition(loop, tube.to));
  const block: LoopComponent = {
    id: 'added-block',
    kind: 'block',
    volume_ml: Math.round(random.between(15, 60)),
    ports: { in: at, out: [at[0] + 30, at[1], at[2]] },
    flow: ['in', 'out'],
  };
  const { length_mm: _length, path: _path, ...piece } = tube;
  return {
    ...loop,
    components: [...loop.components, block],
    tubes: [
      ...loop.tubes.filter(({ id }) => id !== tube.id),
      { ...piece, id: `${tube.id}-a`, to: ['added-block', 'in'] },
      { ...piece, id: `${tube.id}-b`, from: ['added-block', 'out'] },
    ],
  };
}

/** The same place, the same ports, another make that holds another volume. */
const exchanged = (loop: LoopFile, id: string, random: Random): LoopFile => ({
  ...loop,
  components: loop.components.map((part) =>
    part.id === id ? { ...part, catalogue: 'another-make', volume_ml: Math.round(part.volume_ml * random.between(0.6, 1.6)) } : part,
  ),
});

/** A part more, a part less, or another in the place of one. */
export function generateChange(loop: LoopFile, random: Random): LoopFile {
  const parts = loop.components.filter(({ kind }) => kind === 'block' || kind === 'radiator').map(({ id }) => id);
  const leaves = parts.filter((id) => cannotBypass(loop, id) === null);
  const which = random.next();
  if (which < 1 / 3 && leaves.length > 0) return bypassPart(loop, random.pick(leaves)).loop;
  if (which < 2 / 3 && parts.length > 0) return exchanged(loop, random.pick(parts), random);
  return enlarged(loop, random.pick(tubesByHand(loop)), random);
}
