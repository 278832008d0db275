import { PLACES, type Place } from '../catalogue/places.js';
import type { CaseInFile, LoopComponent, LoopFile, Point, RoomInFile } from '../loop-file/loopFile.js';

/** Inside of a case seen from its window side: x to the front, y up, z towards the window. mm. */
export interface CaseOutline {
  readonly label: string;
  readonly depthMm: number;
  readonly heightMm: number;
  readonly widthMm: number;
  /** where a part of a place is mounted: the corner of it that touches the case there */
  readonly mounts: Partial<Readonly<Record<Place, Point>>>;
  /** measured in it; missing: nothing was */
  readonly room?: RoomInFile;
}

/** General sizes to begin with; the workshop adds its own. */
export const CASES = {
  'mid-tower': { label: 'mid tower', depthMm: 450, heightMm: 500, widthMm: 210, mounts: {} },
  'large-tower': { label: 'large tower', depthMm: 560, heightMm: 620, widthMm: 240, mounts: {} },
  'small-cube': { label: 'small cube', depthMm: 360, heightMm: 300, widthMm: 260, mounts: {} },
  'open-frame': { label: 'open frame', depthMm: 480, heightMm: 480, widthMm: 300, mounts: {} },
} as const satisfies Record<string, CaseOutline>;

export type CaseKey = keyof typeof CASES;

/** The case a loop is drawn in; a middling one where its file names none. */
export function caseOf({ case: given }: Pick<LoopFile, 'case'>): CaseOutline {
  if (typeof given === 'object') {
    const { name, depth_mm: depthMm, height_mm: heightMm, width_mm: widthMm, mounts, room } = given;
    return { label: name, depthMm, heightMm, widthMm, mounts: mounts ?? {}, ...(room ? { room } : {}) };
  }
  return given !== undefined && Object.hasOwn(CASES, given) ? CASES[given as CaseKey] : CASES['mid-tower'];
}

export const caseInFile = ({ label, depthMm, heightMm, widthMm, mounts, room }: CaseOutline): CaseInFile => ({
  name: label,
  depth_mm: depthMm,
  height_mm: heightMm,
  width_mm: widthMm,
  mounts: { ...mounts } as Record<string, Point>,
  ...(room && Object.keys(room).length > 0 ? { room } : {}),
});

/** Which side of a part touches the case, for each axis: the larger or the smaller edge. */
const TOUCHES_TOP: ReadonlySet<string> = new Set<Place>(['roof']);
const TOUCHES_FRONT: ReadonlySet<string> = new Set<Place>(['front']);
const TOUCHES_WINDOW: ReadonlySet<string> = new Set<Place>(['window-side']);

/** The corner of a part that touches the case where it is mounted. */
export function mountOf(part: LoopComponent): Point {
  const points = part.box ? [part.box.min, part.box.max] : Object.values(part.ports);
  const edge = (axis: 0 | 1 | 2, largest: boolean): number =>
    points.reduce((best, point) => (largest ? Math.max(best, point[axis]) : Math.min(best, point[axis])), largest ? -Infinity : Infinity);
  const place = part.place ?? '';
  return [edge(0, TOUCHES_FRONT.has(place)), edge(1, TOUCHES_TOP.has(place)), edge(2, TOUCHES_WINDOW.has(place))];
}

/** A template from a drawing: its case, and for every place where its first part is mounted. */
export function templateFrom(loop: LoopFile, label: string): CaseOutline {
  const mounts: Partial<Record<Place, Point>> = {};
  for (const part of loop.components) {
    const place = part.place as Place | undefined;
    if (place !== undefined && Object.hasOwn(PLACES, place)) mounts[place] ??= mountOf(part);
  }
  return { ...caseOf(loop), label, mounts };
}
