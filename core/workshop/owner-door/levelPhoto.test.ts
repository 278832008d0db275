import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../base/random/random.js';
import { readLevel, TOUCH_SD_PX, type Px } from './levelPhoto.js';

const touches = { mark: { x: 300, y: 200 }, level: { x: 320, y: 260 }, scale: [{ x: 200, y: 400 }, { x: 500, y: 400 }] as const, scaleMm: 60 }; // prettier-ignore

describe('a level on a picture', () => {
  it('is read by the known length beside it: below the mark is negative', () => {
    // 300 px are 60 mm: 60 px below are 12 mm
    expect(readLevel(touches)?.mm).toBeCloseTo(-12, 9);
    expect(readLevel({ ...touches, level: { x: 320, y: 175 } })?.mm).toBeCloseTo(5, 9);
  });

  it('is the same however the camera was turned, and whichever end was touched first', () => {
    fc.assert(
      fc.property(fc.double({ min: -1.2, max: 1.2, noNaN: true }), (angle) => {
        const turn = ({ x, y }: Px): Px => ({ x: 400 + (x - 400) * Math.cos(angle) - (y - 300) * Math.sin(angle), y: 300 + (x - 400) * Math.sin(angle) + (y - 300) * Math.cos(angle) }); // prettier-ignore
        const [a, b] = touches.scale;
        const turned = { ...touches, mark: turn(touches.mark), level: turn(touches.level) };
        expect(readLevel({ ...turned, scale: [turn(a), turn(b)] })?.mm).toBeCloseTo(-12, 6);
        expect(readLevel({ ...turned, scale: [turn(b), turn(a)] })?.mm).toBeCloseTo(-12, 6);
      }),
    );
  });

  it('says its error as it is: what many touches scatter by', () => {
    const random = seededRandom(7);
    const near = ({ x, y }: Px): Px => ({ x: x + TOUCH_SD_PX * random.normal(), y: y + TOUCH_SD_PX * random.normal() });
    const read = Array.from({ length: 4000 }, () => readLevel({ ...touches, mark: near(touches.mark), level: near(touches.level), scale: [near(touches.scale[0]), near(touches.scale[1])] })?.mm ?? 0); // prettier-ignore
    const mean = read.reduce((sum, mm) => sum + mm, 0) / read.length;
    const sd = Math.sqrt(read.reduce((sum, mm) => sum + (mm - mean) ** 2, 0) / (read.length - 1));
    expect(Math.abs(sd / (readLevel(touches)?.sdMm ?? 0) - 1)).toBeLessThan(0.05);
  });

  it('cannot be told where the known length is a few px, or none', () => {
    expect(readLevel({ ...touches, scale: [touches.scale[0], { x: 210, y: 400 }] })).toBeNull();
    expect(readLevel({ ...touches, scaleMm: 0 })).toBeNull();
  });
});
