import { usualLoop } from '../catalogue/testLoops.js';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { findCataloguePart, makeComponent, type CataloguePart } from '../catalogue/parts.js';
import { PLACES, type Place } from '../catalogue/places.js';
import { emptyLoop } from '../catalogue/starters.js';
import { readLoopFile } from '../loop-file/loopFileSchema.js';
import { caseInFile, caseOf, CASES, mountOf, templateFrom } from './cases.js';
import { movePart, placePart } from './edit.js';

const part = (key: string): CataloguePart => findCataloguePart(key) as CataloguePart;

describe('the case a loop is drawn in', () => {
  it('is the usual one where the file names none, or one nobody knows', () => {
    expect(caseOf({})).toBe(CASES['mid-tower']);
    expect(caseOf({ case: 'barn' })).toBe(CASES['mid-tower']);
    expect(caseOf({ case: 'toString' })).toBe(CASES['mid-tower']);
    expect(caseOf({ case: 'small-cube' })).toBe(CASES['small-cube']);
  });

  it('travels whole in the file', () => {
    const outline = { label: 'Tall oak', depthMm: 501.5, heightMm: 700, widthMm: 230, mounts: { roof: [30, 690, 15] } } as const;
    const file = readLoopFile({ ...usualLoop(), case: caseInFile(outline) });
    expect(caseOf(file)).toEqual(outline);
  });

  it('is refused with its place when a size is missing', () => {
    const { name, depth_mm, height_mm } = caseInFile(CASES['mid-tower']);
    expect(() => readLoopFile({ ...usualLoop(), case: { name, depth_mm, height_mm } })).toThrowError(/case/);
  });

  it('of the examples can be drawn', () => {
    const file = readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));
    expect(caseOf(file).depthMm).toBeGreaterThan(100);
  });
});

describe('a template from a drawing', () => {
  const loop = usualLoop();

  it('remembers the corner that touches the case: top under the roof, front edge behind the front', () => {
    const roof = makeComponent(part('radiator-360-30'), 'roof', 'r');
    const front = makeComponent(part('radiator-360-30'), 'front', 'f');
    expect(mountOf(roof)).toEqual([roof.box?.min[0], roof.box?.max[1], roof.box?.min[2]]);
    expect(mountOf(front)).toEqual([front.box?.max[0], front.box?.min[1], front.box?.min[2]]);
  });

  it('puts the next part of a place where the drawing had the first, whatever its thickness', () => {
    const roofed = loop.components.find(({ place }) => place === 'roof');
    expect(roofed).toBeDefined();
    const lowered = movePart(loop, roofed?.id ?? '', [10, -35, 5]);
    const template = templateFrom(lowered, 'Low roof');
    const { loop: drawn, id } = placePart({ ...emptyLoop('new'), case: caseInFile(template) }, part('radiator-240-30'), 'roof');
    const placed = drawn.components.find((each) => each.id === id);
    expect(placed && mountOf(placed)).toEqual(template.mounts.roof);
  });

  it('knows only places that were used', () => {
    const used = new Set(loop.components.map(({ place }) => place));
    const mounts = templateFrom(loop, 'any').mounts;
    for (const place of Object.keys(PLACES) as Place[]) expect(place in mounts, place).toBe(used.has(place));
  });
});
