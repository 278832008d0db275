import type { LoopProfile, ProfileItem, ProfilePart } from '@core/physics/profile/chainProfile.js';

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

const MARGIN = { left: 46, right: 44, top: 30, bottom: 16 } as const;
const BARE_MARGIN = { left: 6, right: 6, top: 6, bottom: 6 } as const;

export function frameFor(profile: LoopProfile, width: number, height: number, bare: boolean): Frame {
  const margin = bare ? BARE_MARGIN : MARGIN;
  const sx = (width - margin.left - margin.right) / Math.max(1, profile.width);
  const sy = (height - margin.top - margin.bottom) / Math.max(1, profile.highMm - profile.lowMm);
  return { width, height, x: (units) => margin.left + units * sx, y: (mm) => height - margin.bottom - (mm - profile.lowMm) * sy };
}

/** Heights for the ruler at the left, about every 60 pixels, at round millimetres. */
export function rulerMarks(profile: LoopProfile, frame: Frame): number[] {
  const span = profile.highMm - profile.lowMm;
  const step = [50, 100, 200, 500].find((each) => (each / span) * frame.height > 42) ?? 1000;
  const first = Math.ceil(profile.lowMm / step) * step;
  return Array.from({ length: Math.floor((profile.highMm - first) / step) + 1 }, (_, index) => first + index * step);
}

const GLYPH_PX = 6.6;

/** Names above their parts; where two would touch, the later one moves up a line. */
export function placeLabels(items: readonly ProfileItem[], frame: Frame): Label[] {
  const placed: (Label & { right: number })[] = [];
  for (const item of items) {
    if (item.shape === 'run') continue;
    const half = (item.shortName.length * GLYPH_PX) / 2;
    const x = Math.min(frame.width - half - 2, Math.max(half + 40, frame.x((item.x0 + item.x1) / 2)));
    let y = frame.y(item.topMm) - 8;
    while (
      placed.some((other) => other.right > x - half - 6 && other.x - (other.right - other.x) < x + half + 6 && Math.abs(other.y - y) < 14)
    )
      y -= 14;
    placed.push({ id: item.id, text: item.shortName, x, y: Math.max(11, y), right: x + half });
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

/** The place of a front in the drawing: on a run at its share of the length, in a vessel on the surface. null off the path. */
export function frontPoint(items: readonly ProfileItem[], frame: Frame, { id, filled }: FrontMark): { x: number; y: number } | null {
  const item = items.find((each) => each.id === id);
  if (!item) return null;
  if (item.shape !== 'run') return { x: frame.x((item.x0 + item.x1) / 2), y: liquidRect(item, frame, filled).y };
  const points = item.points.map(({ x, yMm }) => ({ x: frame.x(x), y: frame.y(yMm) }));
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

/** Liquid inside a vessel, from below. `filled` 0 … 1. */
export function liquidRect(part: ProfilePart, frame: Frame, filled: number): { y: number; height: number } {
  const top = part.bottomMm + (part.topMm - part.bottomMm) * Math.min(1, Math.max(0, filled));
  return { y: frame.y(top), height: Math.max(0, frame.y(part.bottomMm) - frame.y(top)) };
}
