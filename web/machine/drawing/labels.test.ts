import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { usualLoop } from '@core/machine/catalogue/testLoops.js';
import { CASES } from '@core/machine/drawing/cases.js';
import { passes, placeLabels, type Named } from './labels.js';
import { portsOnScreen, sceneNodes, type PartData } from './scene.js';

describe('names in the drawing', () => {
  const box = { left: 0, top: 0, width: 10, height: 10 };

  it('a piece passes through a rectangle exactly where one of its points lies in it', () => {
    fc.assert(
      fc.property(
        fc.tuple(fc.integer({ min: -20, max: 30 }), fc.integer({ min: -20, max: 30 })),
        fc.tuple(fc.integer({ min: -20, max: 30 }), fc.integer({ min: -20, max: 30 })),
        ([ax, ay], [bx, by]) => {
          const inside = Array.from({ length: 2001 }, (_, step) => step / 2000).some((t) => {
            const [x, y] = [ax + t * (bx - ax), ay + t * (by - ay)];
            return x > 0.02 && x < 9.98 && y > 0.02 && y < 9.98;
          });
          if (inside) expect(passes(box, { x: ax, y: ay }, { x: bx, y: by }, 0)).toBe(true);
          const farOff = Array.from({ length: 401 }, (_, step) => step / 400).every((t) => {
            const [x, y] = [ax + t * (bx - ax), ay + t * (by - ay)];
            return x < -1 || x > 11 || y < -1 || y > 11;
          });
          if (farOff) expect(passes(box, { x: ax, y: ay }, { x: bx, y: by }, 0)).toBe(false);
        },
      ),
    );
  });

  it('stand where no tube lies, and on no other part', () => {
    const block: Named = { id: 'b', name: 'processor', left: 0, top: 0, width: 60, height: 30, vessel: false };
    const below = { line: [{ x: 30, y: 15 }, { x: 30, y: 200 }], widthPx: 14 }; // prettier-ignore
    const [free, moved] = [placeLabels([block], []).get('b'), placeLabels([block], [below]).get('b')];
    expect(free?.top).toBeGreaterThan(30);
    // a tube leaves downwards: the name goes over it
    expect(moved?.top).toBeLessThan(0);
    const above: Named = { ...block, id: 'a', name: 'a', top: -45 };
    const beside = placeLabels([block, above], [below]).get('b');
    expect((beside?.left ?? 0) + (beside?.width ?? 0) <= 0 || (beside?.left ?? 0) >= 60).toBe(true);
  });

  it('of a whole loop lie on no tube of it', () => {
    const nodes = sceneNodes(usualLoop(), CASES['mid-tower'], null).slice(1) as { position: { x: number; y: number }; data: PartData }[];
    const loop = usualLoop();
    const at = new Map(loop.components.map((part) => [part.id, portsOnScreen(part)]));
    for (const { position, data } of nodes) {
      const label = { ...data.label, left: data.label.left + position.x, top: data.label.top + position.y };
      for (const { from, to } of loop.tubes) {
        const [a, b] = [at.get(from[0])?.[from[1]], at.get(to[0])?.[to[1]]];
        if (a && b) expect(passes(label, a, b, 5), data.name).toBe(false);
      }
    }
  });

  it('ports behind one another stand side by side, the nearer first, and each keeps its true place', () => {
    const radiator = usualLoop().components.find(({ id }) => id === 'roof');
    const { a, b } = portsOnScreen(radiator as never) as { a: { x: number; y: number }; b: { x: number; y: number } };
    expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeCloseTo(15);
    expect(b.x).toBeLessThan(a.x);
    expect(radiator?.ports.a?.[0]).toBe(radiator?.ports.b?.[0]);
  });
});
