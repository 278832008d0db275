import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { OldInside, type Standing } from './oldInside.js';

describe('how much of the old liquid is still inside', () => {
  it('halves with each rinse that is mixed and half let out', () => {
    const old = new OldInside({ reservoirMl: 200, wayMl: 400 });
    let left = 600;
    for (let n = 0; n < 4; n += 1) {
      old.follow({ reservoirMl: 0, wayMl: 300 });
      old.follow({ reservoirMl: 200, wayMl: 400 }, 300);
      old.mix();
      left /= 2;
      expect(old.oldMl).toBeCloseTo(left, 9);
    }
  });

  it('comes out unmixed where nobody ran the pump: what was poured above leaves above', () => {
    const old = new OldInside({ reservoirMl: 0, wayMl: 400 });
    old.follow({ reservoirMl: 200, wayMl: 400 }, 200);
    old.follow({ reservoirMl: 0, wayMl: 400 });
    expect(old.lastOutShare).toBe(0);
    expect(old.oldMl).toBe(400);
    old.follow({ reservoirMl: 0, wayMl: 100 });
    expect(old.lastOutShare).toBe(1);
  });

  it('never grows, and is never more than what is inside', () => {
    const at = fc.record({
      reservoirMl: fc.double({ min: 0, max: 300, noNaN: true }),
      wayMl: fc.double({ min: 0, max: 500, noNaN: true }),
    });
    fc.assert(
      fc.property(at, fc.array(fc.tuple(at, fc.boolean()), { maxLength: 20 }), (start, moves) => {
        const old = new OldInside(start);
        let now: Standing = start;
        let before = old.oldMl;
        for (const [to, mixes] of moves) {
          old.follow(to, Math.max(0, to.reservoirMl + to.wayMl - now.reservoirMl - now.wayMl));
          if (mixes) old.mix();
          now = to;
          expect(old.oldMl).toBeLessThanOrEqual(before + 1e-6);
          expect(old.oldMl).toBeLessThanOrEqual(now.reservoirMl + now.wayMl + 1e-6);
          expect(old.oldMl).toBeGreaterThanOrEqual(-1e-6);
          before = old.oldMl;
        }
      }),
    );
  });
});
