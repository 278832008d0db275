import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { BAR_MM, fanHoles, footHoles, holeSvg, PAPERS, SHEET, tiles, tileSize, type HoleTemplate } from './holes.js';

const WORDS = { title: 'Roof <3 × 120>', bar: '50 mm', caution: 'Measure the bar.' };

describe('a template of holes', () => {
  it('has four screws and one opening for each fan, on the pattern of that size', () => {
    const { widthMm, heightMm, holes } = fanHoles({ fanMm: 120, count: 3 });
    expect([widthMm, heightMm, holes.length]).toEqual([360, 120, 15]);
    const screws = holes.filter(({ kind }) => kind === 'screw');
    expect(screws[0]).toMatchObject({ xMm: 7.5, yMm: 7.5 });
    // from the last screw of one fan to the first of the next: what both frames keep
    expect((screws[4]?.xMm ?? 0) - (screws[2]?.xMm ?? 0)).toBe(15);
    expect(fanHoles({ fanMm: 140, count: 2, gapMm: 3 }).widthMm).toBe(283);
    expect(() => fanHoles({ fanMm: 130, count: 1 })).toThrow('130');
  });

  it('of a foot begins at the edge of its outermost hole, and tells what is drilled from what is cut', () => {
    const { widthMm, heightMm, holes } = footHoles([
      [10, 20, 4],
      [50, 20, 4],
      [30, 50, 20],
    ]);
    expect([widthMm, heightMm]).toEqual([44, 42]);
    expect(holes).toEqual([
      { xMm: 2, yMm: 2, diameterMm: 4, kind: 'screw' },
      { xMm: 42, yMm: 2, diameterMm: 4, kind: 'screw' },
      { xMm: 22, yMm: 32, diameterMm: 20, kind: 'opening' },
    ]);
  });

  it('is drawn in millimetres, with a bar to measure, and its words cannot break the drawing', () => {
    const svg = holeSvg(fanHoles({ fanMm: 120, count: 1 }), WORDS);
    expect(svg).toContain('width="150mm"');
    expect(svg).toContain('viewBox="0 0 150 162"');
    expect(svg.match(/<circle/g)).toHaveLength(5);
    expect(svg).toContain(`h${BAR_MM}`);
    expect(svg).toContain('Roof &lt;3 × 120>');
  });

  it('comes onto sheets that show every point of it, and overlap', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 900, noNaN: true }),
        fc.double({ min: 5, max: 900, noNaN: true }),
        fc.constantFrom('a4', 'letter'),
        (widthMm, heightMm, paper) => {
          const template: HoleTemplate = { widthMm, heightMm, holes: [] };
          const size = tileSize(paper);
          const all = tiles(template, paper);
          const right = Math.max(...all.map(({ leftMm }) => leftMm)) + size.widthMm;
          const top = Math.max(...all.map(({ bottomMm }) => bottomMm)) + size.heightMm;
          expect(right).toBeGreaterThanOrEqual(widthMm);
          expect(top).toBeGreaterThanOrEqual(heightMm);
          const lefts = [...new Set(all.map(({ leftMm }) => leftMm))].sort((a, b) => a - b);
          for (const [index, left] of lefts.entries()) if (index > 0) expect((lefts[index - 1] ?? 0) + size.widthMm - left).toBeCloseTo(SHEET.overlapMm); // prettier-ignore
          // none is empty
          expect(Math.max(...lefts)).toBeLessThan(widthMm);
        },
      ),
    );
    expect(tiles(fanHoles({ fanMm: 120, count: 3 }), 'a4')).toHaveLength(2);
    expect(PAPERS.a4.widthMm).toBe(210);
  });
});
