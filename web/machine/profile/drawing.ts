import type { Fate, LiquidPicture } from '@core/physics/draining/picture.js';
import type { DrawnItem, DrawnTube, DrawnVessel, UnrolledLoop } from '@core/physics/profile/unroll.js';

/** From drawing units and millimetres to pixels. */
export interface Frame {
  readonly width: number;
  readonly height: number;
  readonly x: (units: number) => number;
  readonly y: (mm: number) => number;
}

export interface Label {
  readonly id: string;
  readonly text: string;
  readonly x: number;
  readonly y: number;
}

const MARGIN = { left: 46, right: 64, top: 34, bottom: 20 } as const;
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
 * Heights for the ruler, about every 50 pixels, at round millimetres: above the case's floor while it stands upright,
 * above the lowest point drawn once it is turned below it.
 */
export function heightMarks({ lowMm, highMm }: UnrolledLoop, { height }: Frame): HeightMark[] {
  const base = lowMm < 0 ? lowMm : 0;
  const span = Math.max(1, highMm - lowMm);
  const step = [20, 50, 100, 200, 500].find((each) => (each / span) * height > 44) ?? 1000;
  const first = Math.ceil((lowMm - base) / step) * step;
  return Array.from({ length: Math.max(0, Math.floor((highMm - base - first) / step) + 1) }, (_, index) => ({
    mm: base + first + index * step,
    label: first + index * step,
  }));
}

const GLYPH_PX = 6.8;
const LINE_PX = 14;

const topOf = (item: DrawnItem): number => (item.shape === 'vessel' ? item.topMm : item.shape === 'part' ? item.mm : 0);

/** Names above their parts; where two would touch, below, and then a line further up. */
export function placeNames(items: readonly DrawnItem[], frame: Frame): Label[] {
  const placed: (Label & { half: number })[] = [];
  const free = (x: number, y: number, half: number): boolean =>
    placed.every((other) => Math.abs(other.x - x) > other.half + half + 4 || Math.abs(other.y - y) >= LINE_PX);
  for (const item of items) {
    if (item.shape === 'tube') continue;
    const half = (item.name.length * GLYPH_PX) / 2;
    const x = Math.min(frame.width - half - 2, Math.max(half + 42, frame.x((item.x0 + item.x1) / 2)));
    const above = frame.y(topOf(item)) - (item.shape === 'part' ? 17 : 9);
    const below = frame.y(item.shape === 'vessel' ? item.bottomMm : item.mm) + 26;
    const options = [above, below, above - LINE_PX, below + LINE_PX, above - 2 * LINE_PX];
    const y = options.find((each) => each > 11 && each < frame.height - 3 && free(x, each, half)) ?? Math.max(12, above);
    placed.push({ id: item.id, text: item.name, x, y, half });
  }
  return placed;
}

/** Where a filling front stands: in which stretch, and how much of it is wet. */
export interface FrontMark {
  readonly kind: 'predicted' | 'measured';
  readonly id: string;
  /** 0 … 1 */
  readonly filled: number;
}

/** The place of a front in the drawing: on a tube at its share of the length, in a vessel on the surface. null: not drawn. */
export function frontPoint(
  { items }: UnrolledLoop,
  { vessels }: LiquidPicture,
  frame: Frame,
  { id, filled }: FrontMark,
): { x: number; y: number } | null {
  const item = items.find((each) => each.id === id);
  if (!item) return null;
  if (item.shape === 'part') return { x: frame.x((item.x0 + item.x1) / 2), y: frame.y(item.mm) };
  if (item.shape === 'vessel') {
    const surface = vessels.get(item.part)?.findLast(({ fate }) => fate === 'liquid')?.toMm ?? item.bottomMm;
    return { x: frame.x((item.x0 + item.x1) / 2), y: frame.y(surface) };
  }
  const points = item.points.map(({ x, mm }) => ({ x: frame.x(x), y: frame.y(mm) }));
  const lengths = points.slice(1).map((point, index) => Math.hypot(point.x - (points[index]?.x ?? 0), point.y - (points[index]?.y ?? 0)));
  let left = Math.min(1, Math.max(0, filled)) * lengths.reduce((sum, each) => sum + each, 0);
  for (let index = 0; index < lengths.length; index += 1) {
    const length = lengths[index] as number;
    const [from, to] = [points[index], points[index + 1]] as [{ x: number; y: number }, { x: number; y: number }];
    if (left <= length && length > 0)
      return { x: from.x + ((to.x - from.x) * left) / length, y: from.y + ((to.y - from.y) * left) / length };
    left -= length;
  }
  return points.at(-1) ?? null;
}
