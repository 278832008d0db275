import { describe, expect, it } from 'vitest';
import { readingAs, USUAL_READING } from '../../base/units/reading.js';
import { pictureOfDrain } from '../draining/picture.js';
import { buildNetwork } from '../geometry/network.js';
import { STANDING, type StandingName } from '../../machine/loop-file/orientation.js';
import { turnNetwork } from '../geometry/turned.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import { unrollTurned, type DrawnTube, type DrawnVessel, type UnrolledLoop } from './unroll.js';
import { readFileSync } from 'node:fs';
import { frameOf, heightMarks, placeNames, tubePathOf, tubePieces, vesselPath } from './drawing.js';

const loop = readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));
const turnedTo = (standing: StandingName) => turnNetwork(buildNetwork(loop), STANDING[standing]);
const unrolled = (standing: StandingName = 'upright'): UnrolledLoop => unrollTurned(turnedTo(standing), loop);
const SIZE = [1000, 300] as const;
const vessel = (from: UnrolledLoop, id: string): DrawnVessel => from.items.find((item): item is DrawnVessel => item.shape === 'vessel' && item.id === id) as DrawnVessel; // prettier-ignore
const tube = (from: UnrolledLoop, id: string): DrawnTube => from.items.find((item): item is DrawnTube => item.shape === 'tube' && item.id === id) as DrawnTube; // prettier-ignore
const pointsOf = (d: string): number[][] => d.replace(/[MZ]/g, '').split('L').map((pair) => pair.split(' ').map(Number)); // prettier-ignore

describe('the frame of a loop profile', () => {
  it('holds the whole loop inside the picture, higher things higher up', () => {
    for (const standing of ['upright', 'on-back', 'upside-down'] as const) {
      const drawn = unrolled(standing);
      const frame = frameOf(drawn, ...SIZE);
      expect(frame.y(drawn.highMm)).toBeGreaterThan(0);
      expect(frame.y(drawn.lowMm)).toBeLessThan(SIZE[1]);
      expect(frame.y(drawn.highMm)).toBeLessThan(frame.y(drawn.lowMm));
      expect(frame.x(0)).toBeGreaterThan(0);
      expect(frame.x(drawn.width)).toBeLessThan(SIZE[0]);
    }
  });

  it('marks round heights: above the floor upright, above the lowest point once turned below it', () => {
    const upright = unrolled();
    expect(heightMarks(upright, frameOf(upright, ...SIZE)).map(({ mm, label }) => mm - label)).toEqual(expect.arrayContaining([0]));
    const down = unrolled('upside-down');
    const marks = heightMarks(down, frameOf(down, ...SIZE));
    expect(marks[0]?.label).toBe(0);
    expect(marks[0]?.mm).toBe(down.lowMm);
    expect(new Set(marks.slice(1).map(({ label }, index) => label - (marks[index]?.label as number))).size).toBe(1);
  });

  it('is round in inches for whoever reads inches, at the same heights', () => {
    const upright = unrolled();
    const marks = readingAs({ ...USUAL_READING, length: 'in' }, () => heightMarks(upright, frameOf(upright, ...SIZE)));
    expect(marks.length).toBeGreaterThan(2);
    for (const { mm, label } of marks) {
      expect(Number.isInteger(label)).toBe(true);
      expect(mm).toBeCloseTo(label * 25.4, 6);
    }
  });
});

describe('the outline of a vessel', () => {
  it('is a closed shape, symmetric about its middle, between its bottom and its top', () => {
    const drawn = unrolled();
    const frame = frameOf(drawn, ...SIZE);
    const front = vessel(drawn, 'front');
    const points = pointsOf(vesselPath(front, frame));
    const middle = frame.x((front.x0 + front.x1) / 2);
    const mean = points.reduce((sum, [x]) => sum + (x as number), 0) / points.length;
    expect(mean).toBeCloseTo(middle, 1);
    expect(Math.max(...points.map(([, y]) => y as number))).toBeCloseTo(frame.y(front.bottomMm), 1);
    expect(Math.min(...points.map(([, y]) => y as number))).toBeCloseTo(frame.y(front.topMm), 1);
  });
});

describe('what stands in a tube', () => {
  const turned = turnedTo('upright');
  const drawn = unrollTurned(turned, loop);
  const frame = frameOf(drawn, ...SIZE);
  const picture = pictureOfDrain(turned, { open: ['top.vent'], drains: ['gpu.low'], closed: [] });

  it('is one piece where one thing becomes of it, along the whole tube', () => {
    const [only, ...others] = tubePieces(tube(drawn, 't3'), picture, frame);
    expect(others).toEqual([]);
    expect(only?.fate).toBe('gas');
    expect(only?.d).toBe(tubePathOf(tube(drawn, 't3'), frame));
  });

  it('is cut where it changes, with no gap between the pieces', () => {
    const pieces = tubePieces(tube(drawn, 't1'), picture, frame);
    expect(pieces.map(({ fate }) => fate)).toEqual(['low', 'high']);
    const [low, high] = pieces.map(({ d }) => pointsOf(d)) as [number[][], number[][]];
    expect(low.at(-1)).toEqual(high[0]);
    const whole = pointsOf(tubePathOf(tube(drawn, 't1'), frame));
    expect(low[0]).toEqual(whole[0]);
    expect(high.at(-1)).toEqual(whole.at(-1));
  });
});

describe('names in the drawing', () => {
  it('stand inside the picture, one for each part, and do not lie on one another', () => {
    const drawn = unrolled();
    const frame = frameOf(drawn, ...SIZE);
    const names = placeNames(drawn.items, frame);
    expect(names.map(({ id }) => id)).toEqual(['res', 'pump', 'gpu', 'cpu', 'top', 'front']);
    for (const { x, y } of names) {
      expect(x).toBeGreaterThan(0);
      expect(x).toBeLessThan(SIZE[0]);
      expect(y).toBeGreaterThan(0);
      expect(y).toBeLessThan(SIZE[1]);
    }
    names.forEach((a, index) => {
      for (const b of names.slice(index + 1)) {
        const apart = Math.abs(a.x - b.x) > (3.4 * (a.text.length + b.text.length)) || Math.abs(a.y - b.y) >= 14; // prettier-ignore
        expect(apart, `${a.text} on ${b.text}`).toBe(true);
      }
    });
  });
});
