import { scaleOf } from '../../base/units/shown.js';
import { partOfPlace } from '../../machine/seals/places.js';
import type { Fate, LiquidPicture } from '../draining/picture.js';
import type { DrawnItem, DrawnTube, DrawnVessel, UnrolledLoop } from './unroll.js';

/** From drawing units and millimetres to pixels. */
export interface Frame {
  readonly width: number;
  readonly height: number;
  readonly x: (units: number) => number;
  readonly y: (mm: number) => number;
}

export interface Point {
  readonly x: number;
  readonly y: number;
}

export interface Label {
  readonly id: string;
  readonly text: string;
  readonly x: number;
  readonly y: number;
}

/** px; below the lowest part there is room for a name */
const MARGIN = { left: 46, right: 64, top: 34, bottom: 34 } as const;
/** without ruler and names */
const BARE_MARGIN = { left: 6, right: 6, top: 8, bottom: 8 } as const;

/** Never negative, however little room there is: a page measures its width only after the first drawing. */
export function frameOf({ width: units, lowMm, highMm }: UnrolledLoop, width: number, height: number, bare = false): Frame {
  const margin = bare ? BARE_MARGIN : MARGIN;
  const sx = Math.max(0, width - margin.left - margin.right) / Math.max(1, units);
  const sy = Math.max(0, height - margin.top - margin.bottom) / Math.max(1, highMm - lowMm);
  return { width, height, x: (u) => margin.left + u * sx, y: (mm) => height - margin.bottom - (mm - lowMm) * sy };
}

const at = ({ x, y }: Frame, u: number, mm: number): string => `${x(u).toFixed(1)} ${y(mm).toFixed(1)}`;

/** A vessel's outline: as wide at each height as it holds liquid there. */
export function vesselPath({ slices, x0, x1 }: DrawnVessel, frame: Frame): string {
  const middle = (x0 + x1) / 2;
  const right = slices.map(({ mm, half }) => at(frame, middle + half, mm));
  const left = [...slices].reverse().map(({ mm, half }) => at(frame, middle - half, mm));
  return `M${[...right, ...left].join('L')}Z`;
}

export interface TubePiece {
  readonly fate: Fate;
  readonly d: string;
}

/** A tube cut where what stands in it changes. Volume-less nodes take the fate of the node before. */
export function tubePieces({ points }: DrawnTube, { fates }: LiquidPicture, frame: Frame): TubePiece[] {
  const pieces: { fate: Fate; points: string[] }[] = [];
  let fate: Fate = fates[(points.find(({ holds }) => holds) ?? points[0])?.node as number] as Fate;
  let previous = points[0];
  for (const point of points) {
    if (point.holds) {
      const now = fates[point.node] as Fate;
      if (now !== fate && previous) {
        const middle = { x: (previous.x + point.x) / 2, mm: (previous.mm + point.mm) / 2 };
        pieces.at(-1)?.points.push(at(frame, middle.x, middle.mm));
        pieces.push({ fate: now, points: [at(frame, middle.x, middle.mm)] });
        fate = now;
      }
    }
    if (pieces.length === 0) pieces.push({ fate, points: [] });
    pieces.at(-1)?.points.push(at(frame, point.x, point.mm));
    previous = point;
  }
  return pieces.map((piece) => ({ fate: piece.fate, d: `M${piece.points.join('L')}` }));
}

export const tubePathOf = ({ points }: DrawnTube, frame: Frame): string => `M${points.map(({ x, mm }) => at(frame, x, mm)).join('L')}`;

export interface HeightMark {
  readonly mm: number;
  readonly label: number;
}

/**
 * Heights for the ruler, about every 50 pixels, at round figures of the unit that is read (`label`): above the case's floor while it stands upright,
 * above the lowest point drawn once it is turned below it.
 */
export function heightMarks({ lowMm, highMm }: UnrolledLoop, { height }: Frame): HeightMark[] {
  const base = lowMm < 0 ? lowMm : 0;
  const span = Math.max(1, highMm - lowMm);
  // round in the unit that is read
  const unitMm = 1 / scaleOf('mm').factor;
  const step = STEPS.find((each) => ((each * unitMm) / span) * height > 44) ?? (STEPS.at(-1) as number);
  const first = Math.ceil((lowMm - base) / (step * unitMm)) * step;
  return Array.from({ length: Math.max(0, Math.floor((highMm - base - first * unitMm) / (step * unitMm)) + 1) }, (_, index) => {
    const label = first + index * step;
    return { mm: base + label * unitMm, label };
  });
}
const STEPS = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000] as const;

/** px; size of names in a picture, and at the bench, where it is read from two metres */
export const LABEL_PX = { usual: 16, bench: 18 } as const;
/** share of its size that a letter is wide, and a line high */
const GLYPH = 0.54;
const LINE = 1.06;

interface Judged extends Point {
  readonly box: Box;
  readonly cost: number;
}

interface Box {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

/** What a name must stay clear of: tubes as the pieces between their points. */
function tubeLines(items: readonly DrawnItem[], frame: Frame): readonly (readonly [Point, Point])[] {
  return items.flatMap((item) => {
    if (item.shape !== 'tube') return [];
    const points = item.points.map(({ x, mm }) => ({ x: frame.x(x), y: frame.y(mm) }));
    return points.slice(1).map((to, index) => [points[index] as Point, to] as const);
  });
}

/** Whether a piece of tube runs through a box: its middle part, cut at the box's sides (Liang and Barsky, 1984). */
function crosses([from, to]: readonly [Point, Point], { left, right, top, bottom }: Box): boolean {
  // most pieces lie wholly to one side
  if (Math.max(from.x, to.x) < left || Math.min(from.x, to.x) > right || Math.max(from.y, to.y) < top || Math.min(from.y, to.y) > bottom)
    return false;
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  let [enter, leave] = [0, 1];
  for (const [p, q] of [
    [-dx, from.x - left],
    [dx, right - from.x],
    [-dy, from.y - top],
    [dy, bottom - from.y],
  ] as const) {
    if (p === 0) {
      if (q < 0) return false;
      continue;
    }
    if (p < 0) enter = Math.max(enter, q / p);
    else leave = Math.min(leave, q / p);
  }
  return enter <= leave;
}

/** px; half of a dot that is drawn */
const DOT_PX = 13;
const boxAround = (x: number, y: number, half: number): Box => ({ left: x - half, right: x + half, top: y - half, bottom: y + half });
const overlap = (a: Box, b: Box): boolean => a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

const topOf = (item: DrawnItem): number => (item.shape === 'vessel' ? item.topMm : item.shape === 'part' ? item.mm : 0);

/**
 * Names beside their parts: above where that is free, else below, beside, or a line further off. Never on each other; on a tube only
 * where every other place is taken.
 */
export function placeNames(
  items: readonly DrawnItem[],
  frame: Frame,
  labelPx: number = LABEL_PX.usual,
  dots: readonly Point[] = [],
): Label[] {
  const placed: (Label & { box: Box })[] = [];
  const lines = tubeLines(items, frame);
  const linePx = LINE * labelPx;
  for (const item of items) {
    if (item.shape === 'tube') continue;
    const half = (item.name.length * GLYPH * labelPx) / 2;
    const middle = frame.x((item.x0 + item.x1) / 2);
    const above = frame.y(topOf(item)) - (item.shape === 'part' ? 15 : 7);
    const below = frame.y(item.shape === 'vessel' ? item.bottomMm : item.mm) + (item.shape === 'part' ? 12 : 4) + 0.8 * labelPx;
    const candidates = [0, 1, 2, 3]
      .flatMap((line) =>
        [above - line * linePx, below + line * linePx].flatMap((y) =>
          [0, -0.7 * half, 0.7 * half].map((dx) => ({ x: middle + dx, y, far: line + Math.abs(dx) / half })),
        ),
      )
      .sort((a, b) => a.far - b.far);
    // a place costs at least how far off it is: once nothing that is left can be better, the search ends
    let best: Judged | null = null;
    for (const { x: wanted, y, far } of candidates) {
      if (best && best.cost <= far) break;
      const x = Math.min(frame.width - half - 2, Math.max(half + 42, wanted));
      const box = { left: x - half - 2, right: x + half + 2, top: y - 0.8 * labelPx, bottom: y + 0.25 * labelPx };
      const isOut = box.top < 0 || box.bottom > frame.height;
      const others = placed.filter((each) => overlap(each.box, box)).length;
      const tubes = lines.filter((line) => crosses(line, box)).length;
      const under = dots.filter(({ x: dotX, y: dotY }) => overlap(box, boxAround(dotX, dotY, DOT_PX))).length;
      const cost = (isOut ? 1000 : 0) + 100 * others + 40 * under + 10 * Math.min(2, tubes) + far;
      if (!best || cost < best.cost) best = { x, y, box, cost };
    }
    if (!best) continue;
    placed.push({ id: item.id, text: item.name, x: best.x, y: best.y, box: best.box });
  }
  return placed.map(({ box: _box, ...label }) => label);
}

/** A place of the loop that is looked at: part, tube or port. */
export interface PlaceDot {
  readonly id: string;
  readonly label: string;
  readonly state: 'open' | 'next' | 'done' | 'wrong';
}

/** px between the middles of two dots, so that each can be touched */
const DOT_APART_PX = 24;

/** Where each dot is drawn: on a tube half way along, on a part in its middle, on a port where it is. Two at one place stand beside each other. */
export function placeDots({ items }: UnrolledLoop, frame: Frame, dots: readonly PlaceDot[]): (PlaceDot & Point)[] {
  const placed: (PlaceDot & Point)[] = [];
  for (const dot of dots) {
    const at = pointOf(items, frame, dot.id);
    if (!at) continue;
    let { y } = at;
    for (let turn = 0; turn < 6 && placed.some((other) => Math.hypot(other.x - at.x, other.y - y) < DOT_APART_PX); turn += 1)
      y += DOT_APART_PX;
    placed.push({ ...dot, x: at.x, y: Math.min(frame.height - 14, Math.max(14, y)) });
  }
  return placed;
}

function pointOf(items: readonly DrawnItem[], frame: Frame, id: string): Point | null {
  // a ring or an end inside a part lies at that part
  const item = items.find((each) => each.id === partOfPlace(id));
  if (item?.shape === 'tube') return alongTube(item, frame, 0.5);
  if (item) return { x: frame.x((item.x0 + item.x1) / 2), y: frame.y(item.shape === 'part' ? item.mm : (item.bottomMm + item.topMm) / 2) };
  for (const each of items) {
    const port = each.shape === 'tube' ? undefined : each.ports.find(({ name }) => name === id);
    if (port) return { x: frame.x(port.x), y: frame.y(port.mm) };
  }
  return null;
}

/** Where a filling front stands: in which stretch, and how much of it is wet. */
export interface FrontMark {
  readonly kind: 'predicted' | 'measured';
  readonly id: string;
  /** 0 … 1 */
  readonly filled: number;
}

/** The place of a front in the drawing: on a tube at its share of the length, in a vessel on the surface. null: not drawn. */
export function frontPoint({ items }: UnrolledLoop, { vessels }: LiquidPicture, frame: Frame, { id, filled }: FrontMark): Point | null {
  const item = items.find((each) => each.id === id);
  if (!item) return null;
  if (item.shape === 'part') return { x: frame.x((item.x0 + item.x1) / 2), y: frame.y(item.mm) };
  if (item.shape === 'vessel') {
    const surface = vessels.get(item.part)?.findLast(({ fate }) => fate === 'liquid')?.toMm ?? item.bottomMm;
    return { x: frame.x((item.x0 + item.x1) / 2), y: frame.y(surface) };
  }
  return alongTube(item, frame, filled);
}

/** The point at a share of a tube's drawn length. */
function alongTube({ points: bends }: DrawnTube, frame: Frame, share: number): Point | null {
  const points = bends.map(({ x, mm }) => ({ x: frame.x(x), y: frame.y(mm) }));
  const lengths = points.slice(1).map((point, index) => Math.hypot(point.x - (points[index]?.x ?? 0), point.y - (points[index]?.y ?? 0)));
  let left = Math.min(1, Math.max(0, share)) * lengths.reduce((sum, each) => sum + each, 0);
  for (let index = 0; index < lengths.length; index += 1) {
    const length = lengths[index] as number;
    const [from, to] = [points[index], points[index + 1]] as [Point, Point];
    if (left <= length && length > 0)
      return { x: from.x + ((to.x - from.x) * left) / length, y: from.y + ((to.y - from.y) * left) / length };
    left -= length;
  }
  return points.at(-1) ?? null;
}
