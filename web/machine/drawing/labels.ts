/** Where the name of a part stands in the front view: beside or in it, on no tube and on no other name. px, y downwards. */
export interface Spot {
  readonly x: number;
  readonly y: number;
}
export interface Rect {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}
export interface Named extends Rect {
  readonly id: string;
  readonly name: string;
  /** large enough for its name inside */
  readonly vessel: boolean;
}
/** A tube over its bends, with what it is wide. */
export interface Way {
  readonly line: readonly Spot[];
  readonly widthPx: number;
}

/** px of the letters of a name; a little more than most of them take */
const LETTER = { widthPx: 6.8, heightPx: 16, gapPx: 4 } as const;

/** Whether a straight piece of this half width passes through a rectangle (separating axes: the two of the rectangle and the piece's normal). */
export function passes(rect: Rect, from: Spot, to: Spot, halfPx: number): boolean {
  const [left, right] = [rect.left - halfPx, rect.left + rect.width + halfPx];
  const [top, bottom] = [rect.top - halfPx, rect.top + rect.height + halfPx];
  if (Math.max(from.x, to.x) < left || Math.min(from.x, to.x) > right) return false;
  if (Math.max(from.y, to.y) < top || Math.min(from.y, to.y) > bottom) return false;
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const side = (x: number, y: number): number => dx * (y - from.y) - dy * (x - from.x);
  const sides = [side(left, top), side(right, top), side(left, bottom), side(right, bottom)];
  return !(sides.every((each) => each > 0) || sides.every((each) => each < 0));
}

const meets = (one: Rect, other: Rect): boolean =>
  one.left < other.left + other.width &&
  other.left < one.left + one.width &&
  one.top < other.top + other.height &&
  other.top < one.top + one.height;

/** Places for a name round its part, the one that is read best first. */
function spotsOf({ left, top, width, height, name, vessel }: Named): Rect[] {
  const wide = name.length * LETTER.widthPx;
  const { heightPx: high, gapPx: gap } = LETTER;
  const middle = left + width / 2 - wide / 2;
  const at = (x: number, y: number): Rect => ({ left: x, top: y, width: wide, height: high });
  const inside = (share: number): Rect => at(middle, top + share * (height - high));
  const ownIn = vessel && wide <= width && height >= high ? [inside(0.5), inside(0.15), inside(0.85)] : [];
  const beside = [0.5, 0.3, 0.7, 0.1, 0.9].flatMap((share) => {
    const y = top + share * (height - high);
    return [at(left + width + gap, y), at(left - wide - gap, y)];
  });
  const far = [high, 2 * high].flatMap((more) => [at(middle, top + height + gap + more), at(middle, top - high - gap - more)]);
  return [...ownIn, at(middle, top + height + gap), at(middle, top - high - gap), ...beside, ...far];
}

/** The place of every name: the first of its own on which no tube, no other part and no other name lies; where there is none, that with least on it. */
export function placeLabels(parts: readonly Named[], ways: readonly Way[]): ReadonlyMap<string, Rect> {
  const placed = new Map<string, Rect>();
  for (const part of parts) {
    const others = parts.filter(({ id }) => id !== part.id);
    const clashes = (spot: Rect): number => {
      const tubes = ways.reduce(
        (sum, { line, widthPx }) => sum + line.slice(1).filter((end, index) => passes(spot, line[index] as Spot, end, widthPx / 2)).length,
        0,
      );
      return (
        tubes + others.filter((other) => meets(spot, other)).length + [...placed.values()].filter((other) => meets(spot, other)).length
      );
    };
    let best: Rect | null = null;
    let least = Number.POSITIVE_INFINITY;
    for (const spot of spotsOf(part)) {
      const count = clashes(spot);
      if (count < least) [best, least] = [spot, count];
      if (count === 0) break;
    }
    if (best) placed.set(part.id, best);
  }
  return placed;
}
