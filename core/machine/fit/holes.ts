import type { Point } from '../loop-file/loopFile.js';

/** A wall to be drilled, true to size: printed at 100 %, taped on, centre-punched. mm from its lower left corner. */
export interface HoleTemplate {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly holes: readonly Hole[];
}
export interface Hole {
  readonly xMm: number;
  readonly yMm: number;
  readonly diameterMm: number;
  /** a screw's, or what air and tubes go through */
  readonly kind: 'screw' | 'opening';
}

/** mm between a fan's screws, by its edge (the pattern that fans of that size share) */
export const FAN_SCREWS_MM: Readonly<Record<number, number>> = { 80: 71.5, 92: 82.5, 120: 105, 140: 124.5 };
export const HOLES = {
  /** mm; a screw of 3.5 to 4 mm with play */
  screwMm: 4.5,
  /** mm that the wall keeps round a fan's opening */
  rimMm: 2,
  /** mm beyond which a hole is an opening, cut and not drilled */
  openingFromMm: 12,
} as const;

/** A row of fans, as a radiator has them: four screws and one opening each. `gapMm`: between two fans' frames. */
export function fanHoles({ fanMm, count, gapMm = 0 }: { fanMm: number; count: number; gapMm?: number }): HoleTemplate {
  const pitch = FAN_SCREWS_MM[fanMm];
  if (pitch === undefined) throw new RangeError(`no screw pattern is known for fans of ${fanMm} mm`);
  const inset = (fanMm - pitch) / 2;
  const holes = Array.from({ length: count }, (_, index): Hole[] => {
    const left = index * (fanMm + gapMm);
    const screws = [inset, inset + pitch].flatMap((x) =>
      [inset, inset + pitch].map((y): Hole => ({ xMm: left + x, yMm: y, diameterMm: HOLES.screwMm, kind: 'screw' })),
    );
    return [{ xMm: left + fanMm / 2, yMm: fanMm / 2, diameterMm: fanMm - 2 * HOLES.rimMm, kind: 'opening' }, ...screws];
  });
  return { widthMm: count * fanMm + (count - 1) * gapMm, heightMm: fanMm, holes: holes.flat() };
}

/** Holes that a part's foot wants, as its sheet or a rule gave them: [x, y, diameter]. */
export function footHoles(given: readonly Point[]): HoleTemplate {
  const edge = (axis: 0 | 1, sign: 1 | -1): number => Math.max(...given.map((hole) => sign * hole[axis] + hole[2] / 2));
  const [left, low] = [-edge(0, -1), -edge(1, -1)];
  return {
    widthMm: edge(0, 1) - left,
    heightMm: edge(1, 1) - low,
    holes: given.map(([x, y, diameterMm]) => ({
      xMm: x - left,
      yMm: y - low,
      diameterMm,
      kind: diameterMm > HOLES.openingFromMm ? 'opening' : 'screw',
    })),
  };
}

/** One sheet of paper and the piece of the template that is printed on it. */
export interface Tile {
  readonly column: number;
  readonly row: number;
  readonly leftMm: number;
  readonly bottomMm: number;
}

export const PAPERS = { a4: { widthMm: 210, heightMm: 297 }, letter: { widthMm: 215.9, heightMm: 279.4 } } as const;
export type PaperKey = keyof typeof PAPERS;
export const SHEET = {
  /** mm that no printer reaches, and the words at the foot */
  marginMm: 12,
  footMm: 30,
  /** mm that neighbouring sheets share, to be laid over one another by their crosses */
  overlapMm: 10,
} as const;

/** mm of the template that one sheet shows */
export const tileSize = (paper: PaperKey): { widthMm: number; heightMm: number } => ({
  widthMm: PAPERS[paper].widthMm - 2 * SHEET.marginMm,
  heightMm: PAPERS[paper].heightMm - SHEET.marginMm - SHEET.footMm,
});

/** How a template comes onto sheets, row by row from below: together they show all of it, each at least its overlap twice. */
export function tiles({ widthMm, heightMm }: HoleTemplate, paper: PaperKey): Tile[] {
  const size = tileSize(paper);
  const along = (whole: number, tile: number): number[] => {
    const count = whole <= tile ? 1 : Math.ceil((whole - SHEET.overlapMm) / (tile - SHEET.overlapMm));
    return Array.from({ length: count }, (_, index) => index * (tile - SHEET.overlapMm));
  };
  return along(heightMm, size.heightMm).flatMap((bottomMm, row) =>
    along(widthMm, size.widthMm).map((leftMm, column): Tile => ({ column, row, leftMm, bottomMm })),
  );
}

/** What stands beside the holes, in the reader's language. */
export interface HoleWords {
  readonly title: string;
  /** beside the bar that is measured on the print */
  readonly bar: string;
  readonly caution: string;
}

/** mm; the bar that tells whether the printer kept the size */
export const BAR_MM = 50;

const n = (mm: number): string => String(Math.round(mm * 100) / 100);
const escaped = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');

/** As SVG true to size: its user unit is the millimetre. */
export function holeSvg(template: HoleTemplate, { title, bar, caution }: HoleWords): string {
  const margin = SHEET.marginMm;
  const width = Math.max(template.widthMm + 2 * margin, 3 * BAR_MM);
  const height = template.heightMm + margin + SHEET.footMm;
  const yOf = (yMm: number): number => margin + template.heightMm - yMm;
  const cross = ({ xMm, yMm }: Hole): string => {
    const [x, y] = [margin + xMm, yOf(yMm)];
    return `<path d="M${n(x - 4)} ${n(y)}h8M${n(x)} ${n(y - 4)}v8"/>`;
  };
  const circle = (hole: Hole): string =>
    `<circle cx="${n(margin + hole.xMm)}" cy="${n(yOf(hole.yMm))}" r="${n(hole.diameterMm / 2)}"><title>${n(hole.diameterMm)} mm</title></circle>`;
  const foot = margin + template.heightMm + 8;
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${n(width)}mm" height="${n(height)}mm" viewBox="0 0 ${n(width)} ${n(height)}">`,
    `<title>${escaped(title)}</title>`,
    `<g fill="none" stroke="#000" stroke-width="0.25">`,
    `<rect x="${n(margin)}" y="${n(margin)}" width="${n(template.widthMm)}" height="${n(template.heightMm)}" stroke-dasharray="3 2"/>`,
    ...template.holes.flatMap((hole) => [circle(hole), cross(hole)]),
    `<path d="M${n(margin)} ${n(foot)}v4M${n(margin)} ${n(foot + 2)}h${BAR_MM}M${n(margin + BAR_MM)} ${n(foot)}v4" stroke-width="0.5"/>`,
    `</g>`,
    `<g font-family="sans-serif" font-size="4">`,
    `<text x="${n(margin + BAR_MM + 4)}" y="${n(foot + 3.4)}">${escaped(bar)}</text>`,
    `<text x="${n(margin)}" y="${n(foot + 10)}">${escaped(title)}</text>`,
    `<text x="${n(margin)}" y="${n(foot + 15.5)}">${escaped(caution)}</text>`,
    `</g></svg>`,
  ].join('\n');
}
