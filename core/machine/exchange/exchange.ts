import { say } from '../../base/words/say.js';
import { makeComponent, type CataloguePart } from '../catalogue/parts.js';
import type { Place } from '../catalogue/places.js';
import { tubeName } from '../catalogue/names.js';
import {
  distanceMm,
  partFinder,
  pathLengthMm,
  tubeLengthMm,
  tubePolyline,
  type LoopComponent,
  type LoopFile,
  type Point,
  type PortRef,
} from '../loop-file/loopFile.js';
import { findTubeMaterial } from '../materials/tubes.js';

export const EXCHANGE = {
  /** mm a tube may be shorter than its new way: what fittings give back */
  reachSlackMm: 5,
  /** mm of extra length that a soft tube takes up in its bends without standing in the way */
  softExtraMm: 25,
  /** mm a new piece is cut longer than its way */
  allowanceMm: 12,
} as const;

export type ReachVerdict = 'reaches' | 'too-short' | 'shorten' | 'new-piece';

export interface TubeReach {
  readonly id: string;
  readonly name: string;
  /** as it is cut now */
  readonly hasMm: number;
  /** along its bends to the new port */
  readonly wayMm: number;
  readonly verdict: ReachVerdict;
  /** mm to cut off, or of the new piece; null where nothing is cut */
  readonly cutMm: number | null;
}

/** The part with its ports renamed to those of the old one where they do the same: tubes find them again. */
function alignedPart(old: LoopComponent, part: CataloguePart, place: Place): LoopComponent {
  const made = makeComponent(part, place, old.id);
  const oldIn = old.ports[old.flow?.[0] ?? ''] ?? (Object.values(old.ports)[0] as Point);
  const newIn = made.ports[made.flow?.[0] ?? ''] ?? (Object.values(made.ports)[0] as Point);
  const by = [0, 1, 2].map((axis) => (oldIn[axis] as number) - (newIn[axis] as number));
  const shift = (at: Point): Point => at.map((mm, axis) => mm + (by[axis] as number)) as unknown as Point;
  // the card or board is still the one that was read off
  const there = old.fit?.sits_on;
  return {
    ...made,
    ...(there ? { fit: { ...made.fit, sits_on: there } } : {}),
    ports: Object.fromEntries(Object.entries(made.ports).map(([port, at]) => [port, shift(at)])),
    ...(made.box ? { box: { min: shift(made.box.min), max: shift(made.box.max) } } : {}),
  };
}

/** Why the exchange cannot be made, in words, or the loop after it. Runs keep their lengths until they are cut. */
export function exchangePart(loop: LoopFile, id: string, part: CataloguePart): { loop: LoopFile } | { refusal: string } {
  const old = loop.components.find((component) => component.id === id);
  if (!old) return { refusal: say('There is no such part in this loop.') };
  const place = part.places.find((each) => each === old.place) ?? (part.places[0] as Place);
  const made = alignedPart(old, part, place);
  const rename = ([owner, port]: PortRef): PortRef | null => {
    if (owner !== id) return [owner, port];
    const end = old.flow?.indexOf(port) ?? -1;
    const wanted = end >= 0 ? made.flow?.[end] : port;
    return wanted !== undefined && Object.hasOwn(made.ports, wanted) ? [id, wanted] : null;
  };
  const tubes = loop.tubes.map((tube) => {
    const [from, to] = [rename(tube.from), rename(tube.to)];
    return from && to ? { ...tube, from, to } : null;
  });
  const lost = tubes.findIndex((tube) => tube === null);
  if (lost >= 0) {
    return {
      refusal: say('{label} has no port for {tubeName}: choose another part, or move that tube first.', {
        label: part.label,
        tubeName: tubeName(loop, loop.tubes[lost] as LoopFile['tubes'][number]),
      }),
    };
  }
  return {
    loop: {
      ...loop,
      components: loop.components.map((component) => (component.id === id ? made : component)),
      tubes: tubes as LoopFile['tubes'],
    },
  };
}

/** A tube as it is cut, against the way that it shall take. mm */
export interface TubeWay {
  readonly hasMm: number;
  readonly wayMm: number;
  /** between its two ends */
  readonly straightMm: number;
  readonly soft: boolean;
}

/** Whether it reaches. Rigid tube does not give: any change of its way is a new piece. */
export function reachesAs({ hasMm, wayMm, straightMm, soft }: TubeWay): Pick<TubeReach, 'verdict' | 'cutMm'> {
  const newPiece = Math.ceil(wayMm + EXCHANGE.allowanceMm);
  if (!soft && Math.abs(hasMm - wayMm) > EXCHANGE.reachSlackMm) return { verdict: 'new-piece', cutMm: newPiece };
  // a soft tube may leave its bends and go straighter, but not further than it is long
  if (hasMm < straightMm - EXCHANGE.reachSlackMm) return { verdict: 'too-short', cutMm: newPiece };
  if (soft && hasMm > wayMm + EXCHANGE.softExtraMm) return { verdict: 'shorten', cutMm: Math.floor(hasMm - wayMm) };
  return { verdict: 'reaches', cutMm: null };
}

/**
 * Which tubes at a part still reach once it was exchanged. Rigid tubes do not give: any change of their way is a new piece.
 * @param before the loop as built, `after` with the part exchanged (`exchangePart`)
 */
export function reachOf(before: LoopFile, after: LoopFile, id: string): TubeReach[] {
  const find = partFinder(after);
  return after.tubes
    .filter(({ from, to }) => from[0] === id || to[0] === id)
    .map((tube): TubeReach => {
      const old = before.tubes.find((each) => each.id === tube.id) ?? tube;
      const hasMm = tubeLengthMm(before, old);
      const line = tubePolyline(after, tube, find);
      const wayMm = pathLengthMm(line);
      const straightMm = distanceMm(line[0] as Point, line.at(-1) as Point);
      const soft = findTubeMaterial(tube.material)?.soft ?? true;
      return { id: tube.id, name: tubeName(after, tube), hasMm, wayMm, ...reachesAs({ hasMm, wayMm, straightMm, soft }) };
    });
}
