import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seeded } from '../../machine/loop-file/generatedLoops.js';
import { levelAtShare, shareBelow, turnBox } from './levelCut.js';
import { heightMm, STANDING, upVector } from '../../machine/loop-file/orientation.js';

const box = { min: [0, 0, 0], max: [60, 200, 30] } as const;
const tilt = fc.record({
  pitchDeg: fc.double({ min: -180, max: 180, noNaN: true }),
  rollDeg: fc.double({ min: -180, max: 180, noNaN: true }),
});

describe('the volume of a box below a level', () => {
  it('grows evenly in an upright box', () => {
    const upright = turnBox(box, upVector(STANDING.upright));
    expect(upright).toMatchObject({ bottomMm: 0, topMm: 200 });
    expect([0, 50, 100, 200].map((level) => shareBelow(upright, level))).toEqual([0, 0.25, 0.5, 1]);
  });

  it('is a wedge in a box tilted about one axis: a square at 45° holds h²/2 of its cross-section', () => {
    const square = turnBox({ min: [0, 0, 0], max: [100, 100, 50] }, upVector({ pitchDeg: 45, rollDeg: 0 }));
    const reach = Math.hypot(100, 100);
    expect(square.topMm - square.bottomMm).toBeCloseTo(reach, 9);
    // below half the diagonal the wetted triangle has height h and base 2h
    expect(shareBelow(square, square.bottomMm + 40)).toBeCloseTo((40 * 40) / (100 * 100), 9);
  });

  it('is a corner tetrahedron in a cube on its tip', () => {
    const cube = turnBox({ min: [0, 0, 0], max: [10, 10, 10] }, [1 / Math.sqrt(3), 1 / Math.sqrt(3), 1 / Math.sqrt(3)]);
    // a plane at distance d from the tip cuts edges of d·√3; volume (d√3)³/6
    expect(shareBelow(cube, cube.bottomMm + 4)).toBeCloseTo((4 * Math.sqrt(3)) ** 3 / 6 / 1000, 9);
  });

  it('agrees with counted points in any orientation within 1 %', () => {
    const random = seeded(7);
    for (let turn = 0; turn < 30; turn += 1) {
      const up = upVector({ pitchDeg: 360 * random() - 180, rollDeg: 360 * random() - 180 });
      const turned = turnBox(box, up);
      const level = turned.bottomMm + random() * (turned.topMm - turned.bottomMm);
      const inside = Array.from({ length: 40_000 }, () => heightMm(up, [60 * random(), 200 * random(), 30 * random()]) < level);
      expect(shareBelow(turned, level)).toBeCloseTo(inside.filter(Boolean).length / inside.length, 1.9);
    }
  });

  it('lies between 0 and 1, rises with the level and is 1 less from above, whatever the turn', () => {
    fc.assert(
      fc.property(tilt, fc.double({ min: 0, max: 1, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true }), (turn, a, b) => {
        const turned = turnBox(box, upVector(turn));
        const at = (share: number): number => turned.bottomMm + share * (turned.topMm - turned.bottomMm);
        const [low, high] = [Math.min(a, b), Math.max(a, b)];
        const [below, above] = [shareBelow(turned, at(low)), shareBelow(turned, at(high))];
        expect(below).toBeGreaterThanOrEqual(0);
        expect(above).toBeLessThanOrEqual(1);
        expect(above).toBeGreaterThanOrEqual(below - 1e-9);
        // the box is its own mirror image
        expect(shareBelow(turned, at(1 - low))).toBeCloseTo(1 - below, 6);
      }),
    );
  });

  it('is inverted by the level of a share', () => {
    fc.assert(
      fc.property(tilt, fc.double({ min: 0.001, max: 0.999, noNaN: true }), (turn, share) => {
        const turned = turnBox(box, upVector(turn));
        expect(shareBelow(turned, levelAtShare(turned, share))).toBeCloseTo(share, 6);
      }),
    );
  });
});

describe('how the case stands', () => {
  it('puts the named side down', () => {
    const highest = (name: keyof typeof STANDING): readonly number[] => upVector(STANDING[name]);
    expect(highest('upright')).toEqual([0, 1, 0]);
    expect(highest('on-back')).toEqual([1, 0, 0]);
    expect(highest('on-face')).toEqual([-1, 0, 0]);
    expect(highest('on-window-side')).toEqual([0, 0, -1]);
    expect(highest('on-blind-side')).toEqual([0, 0, 1]);
    expect(highest('upside-down')).toEqual([0, -1, 0]);
  });

  it('lowers the front with pitch and the side panel with roll', () => {
    const front = heightMm(upVector({ pitchDeg: 10, rollDeg: 0 }), [400, 0, 0]);
    const panel = heightMm(upVector({ pitchDeg: 0, rollDeg: 10 }), [0, 0, 140]);
    expect(front).toBeCloseTo(-400 * Math.sin(Math.PI / 18), 9);
    expect(panel).toBeCloseTo(-140 * Math.sin(Math.PI / 18), 9);
  });

  it('follows the stated formula for any pitch and roll', () => {
    fc.assert(
      fc.property(tilt, ({ pitchDeg, rollDeg }) => {
        const [p, r] = [(pitchDeg * Math.PI) / 180, (rollDeg * Math.PI) / 180];
        const [x, y, z] = [123, 45, 67];
        const expected = Math.cos(r) * (y * Math.cos(p) - x * Math.sin(p)) - z * Math.sin(r);
        expect(heightMm(upVector({ pitchDeg, rollDeg }), [x, y, z])).toBeCloseTo(expected, 6);
      }),
    );
  });
});
