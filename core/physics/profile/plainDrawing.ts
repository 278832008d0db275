import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { contentsOfShares } from '../contents/shares.js';
import { pictureOfContents, type Fate } from '../draining/picture.js';
import { contentsAtMark } from '../live-book/atMark.js';
import { frameOf, heightMarks, placeNames, tubePathOf, tubePieces, vesselPath } from './drawing.js';
import { unrollUpright, type DrawnVessel } from './unroll.js';

/** One stroke or area of a drawing that paper takes as well as a screen. `liquid` is painted in the liquid's own colour. */
export interface PlainShape {
  /** path in the drawing's own units, from its top left (SVG path data of M, L, H, V, Z and A) */
  readonly d: string;
  readonly fill?: 'liquid' | 'glass' | 'ink';
  readonly stroke?: 'liquid' | 'glass' | 'ink' | 'soft';
  readonly strokeWidth?: number;
  readonly dashed?: boolean;
  /** area that it stays within */
  readonly clip?: string;
}

export interface PlainText {
  readonly text: string;
  readonly x: number;
  readonly y: number;
  readonly size: number;
  readonly anchor: 'middle' | 'end';
}

/** The loop profile as shapes: the same drawing as on every page, for paper and for pages without the framework. */
export interface PlainDrawing {
  readonly width: number;
  readonly height: number;
  /** CSS colour of the liquid; null: not known */
  readonly colour: string | null;
  readonly shapes: readonly PlainShape[];
  readonly texts: readonly PlainText[];
}

interface DrawnAs {
  readonly width: number;
  readonly height: number;
  readonly colour: string | null;
  /** share of each part that holds liquid; null: full to its mark */
  readonly filled: ReadonlyMap<string, number> | null;
}

const HALF_PART = 9;
const LABEL = 15;
const boreWidth = (boreMm: number): number => Math.max(6, Math.min(11, boreMm * 0.7));
const box = (x: number, y: number, width: number, height: number): string => `M${x.toFixed(1)} ${y.toFixed(1)}H${(x + width).toFixed(1)}V${(y + height).toFixed(1)}H${x.toFixed(1)}Z`; // prettier-ignore
const isWet = (fate: Fate): boolean => fate !== 'gas';

/** Draws a loop on its feet. @throws nothing: a loop that nobody laid out has no shapes */
export function drawPlain(loop: LoopFile, { width, height, colour, filled }: DrawnAs): PlainDrawing {
  const { turned, unrolled } = unrollUpright(loop);
  const contents = filled === null ? contentsAtMark(loop, turned.network, null) : contentsOfShares(turned.network, filled);
  const picture = pictureOfContents(turned, contents);
  const frame = frameOf(unrolled, width, height);
  const shapes: PlainShape[] = [];
  const marks = heightMarks(unrolled, frame);
  for (const { mm } of marks) shapes.push({ d: `M40 ${frame.y(mm).toFixed(1)}H${width}`, stroke: 'soft', strokeWidth: 0.4 });
  for (const item of unrolled.items) {
    if (item.shape !== 'tube') continue;
    const inner = boreWidth(item.boreMm);
    const d = tubePathOf(item, frame);
    shapes.push({ d, stroke: 'ink', strokeWidth: inner + 3 }, { d, stroke: 'glass', strokeWidth: inner });
    for (const piece of tubePieces(item, picture, frame))
      if (isWet(piece.fate)) shapes.push({ d: piece.d, stroke: 'liquid', strokeWidth: inner });
      else shapes.push({ d: piece.d, stroke: 'soft', strokeWidth: 1, dashed: true });
  }
  for (const item of unrolled.items) {
    if (item.shape === 'vessel') shapes.push(...vesselShapes(item));
    if (item.shape === 'part') {
      const d = box(frame.x(item.x0), frame.y(item.mm) - HALF_PART, frame.x(item.x1) - frame.x(item.x0), 2 * HALF_PART);
      shapes.push({ d, fill: isWet(picture.fates[item.node] ?? 'gas') ? 'liquid' : 'glass', stroke: 'ink', strokeWidth: 1.6 });
    }
  }
  function vesselShapes(vessel: DrawnVessel): PlainShape[] {
    const outline = vesselPath(vessel, frame);
    const [left, wide] = [frame.x(vessel.x0) - 2, frame.x(vessel.x1) - frame.x(vessel.x0) + 4];
    const bands = (picture.vessels.get(vessel.part) ?? []).filter(({ fate }) => isWet(fate));
    return [
      { d: outline, fill: 'glass' },
      ...bands.map(({ fromMm, toMm }): PlainShape => ({ d: box(left, frame.y(toMm), wide, Math.max(0, frame.y(fromMm) - frame.y(toMm))), fill: 'liquid', clip: outline })), // prettier-ignore
      { d: outline, stroke: 'ink', strokeWidth: 1.6 },
    ];
  }
  const names = placeNames(unrolled.items, frame, LABEL).map(({ text, x, y }): PlainText => ({
    text,
    x,
    y,
    size: LABEL,
    anchor: 'middle',
  }));
  const heights = marks.map(({ mm, label }): PlainText => ({ text: String(label), x: 34, y: frame.y(mm) + 4, size: 12, anchor: 'end' }));
  return { width, height, colour, shapes, texts: [...heights, ...names] };
}
