import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { colourDifference, colourVerdict, type Lab } from './colourDifference.js';

/** Pairs and differences of table 1 in Sharma, Wu & Dalal 2005, those that tell a wrong formula from a right one. */
const TABLE: readonly (readonly [number, number, number, number, number, number, number])[] = [
  [50, 2.6772, -79.7751, 50, 0, -82.7485, 2.0425],
  [50, 3.1571, -77.2803, 50, 0, -82.7485, 2.8615],
  [50, 2.8361, -74.02, 50, 0, -82.7485, 3.4412],
  [50, -1.3802, -84.2814, 50, 0, -82.7485, 1.0],
  [50, -1.1848, -84.8006, 50, 0, -82.7485, 1.0],
  [50, -0.9009, -85.5211, 50, 0, -82.7485, 1.0],
  [50, 0, 0, 50, -1, 2, 2.3669],
  [50, -1, 2, 50, 0, 0, 2.3669],
  [50, 2.49, -0.001, 50, -2.49, 0.0009, 7.1792],
  [50, 2.49, -0.001, 50, -2.49, 0.001, 7.1792],
  [50, 2.49, -0.001, 50, -2.49, 0.0011, 7.2195],
  [50, 2.49, -0.001, 50, -2.49, 0.0012, 7.2195],
  [50, -0.001, 2.49, 50, 0.0009, -2.49, 4.8045],
  [50, -0.001, 2.49, 50, 0.001, -2.49, 4.8045],
  [50, -0.001, 2.49, 50, 0.0011, -2.49, 4.7461],
  [50, 2.5, 0, 50, 0, -2.5, 4.3065],
  [50, 2.5, 0, 73, 25, -18, 27.1492],
  [50, 2.5, 0, 61, -5, 29, 22.8977],
  [50, 2.5, 0, 56, -27, -3, 31.903],
  [50, 2.5, 0, 58, 24, 15, 19.4535],
  [50, 2.5, 0, 50, 3.1736, 0.5854, 1.0],
  [60.2574, -34.0099, 36.2677, 60.4626, -34.1751, 39.4387, 1.2644],
  [63.0109, -31.0961, -5.8663, 62.8187, -29.7946, -4.0864, 1.263],
  [22.7233, 20.0904, -46.694, 23.0331, 14.973, -42.5619, 2.0373],
  [90.8027, -2.0831, 1.441, 91.1528, -1.6435, 0.0447, 1.4441],
  [6.7747, -0.2908, -2.4247, 5.8714, -0.0985, -2.2286, 0.6377],
  [2.0776, 0.0795, -1.135, 0.9033, -0.0636, -0.5514, 0.9082],
];

describe('how unlike two colours look', () => {
  it.each(TABLE)('of L %d a %d b %d and L %d a %d b %d is %d', (L1, a1, b1, L2, a2, b2, difference) => {
    expect(colourDifference({ L: L1, a: a1, b: b1 }, { L: L2, a: a2, b: b2 })).toBeCloseTo(difference, 4);
  });

  it('is the same both ways, and nothing for one colour', () => {
    const lab = fc.record({ L: fc.double({ min: 0, max: 100, noNaN: true }), a: fc.double({ min: -90, max: 90, noNaN: true }), b: fc.double({ min: -90, max: 90, noNaN: true }) }); // prettier-ignore
    fc.assert(
      fc.property(lab, lab, (one: Lab, other: Lab) => {
        expect(colourDifference(one, one)).toBeCloseTo(0, 9);
        expect(colourDifference(one, other)).toBeCloseTo(colourDifference(other, one), 6);
      }),
    );
  });

  it('is worth a look from two on, and a change beyond five', () => {
    expect([1.9, 2, 5, 5.1].map(colourVerdict)).toEqual(['same', 'watch', 'watch', 'changed']);
  });
});
