import { describe, expect, it } from 'vitest';
import { findCircuits } from '../loop-file/circuits.js';
import { tubeLengthMm } from '../loop-file/loopFile.js';
import { generateParallelLoop, generateSpatialLoop } from '../loop-file/generatedLoops.js';
import { usualLoop } from '../catalogue/testLoops.js';
import { bypassPart, cannotBypass } from './bypass.js';

describe('a part left out of a loop', () => {
  it('leaves one circuit, one tube less, and every other part where it was', () => {
    for (let seed = 1; seed <= 40; seed += 1) {
      const loop = generateSpatialLoop(seed);
      for (const { id } of loop.components.filter((part) => cannotBypass(loop, part.id) === null)) {
        const left = bypassPart(loop, id);
        expect(findCircuits(left.loop), `${seed} ${id}`).toHaveLength(findCircuits(loop).length);
        expect(left.loop.tubes).toHaveLength(loop.tubes.length - 1);
        expect(left.loop.tubes.flatMap(({ from, to }) => [from[0], to[0]])).not.toContain(id);
        expect(left.loop.components).toEqual(loop.components.filter((part) => part.id !== id));
      }
    }
  });

  it('lays the new tube over the bends of both, from the part before to the part behind', () => {
    const loop = usualLoop();
    const block = loop.components.find(({ kind }) => kind === 'block');
    const id = block?.id as string;
    const before = loop.tubes.find(({ to }) => to[0] === id);
    const behind = loop.tubes.find(({ from }) => from[0] === id);
    const { loop: without, tube, goneTube } = bypassPart(loop, id);
    const through = without.tubes.find((each) => each.id === tube);
    expect([tube, goneTube]).toEqual([before?.id, behind?.id]);
    expect([through?.from, through?.to]).toEqual([before?.from, behind?.to]);
    expect(tubeLengthMm(without, through as never)).toBeGreaterThan(0);
  });

  it('is refused for the reservoir, the only pump, what does not stand between two tubes, and what is alone in its branch', () => {
    const loop = usualLoop();
    const of = (kind: string): string => loop.components.find((each) => each.kind === kind)?.id as string;
    expect(cannotBypass(loop, of('reservoir'))).toBe('reservoir');
    expect(cannotBypass(loop, of('pump'))).toBe('only-pump');
    expect(cannotBypass(loop, 'moon')).toBe('no-such-part');
    const parallel = generateParallelLoop();
    const reasons = parallel.components.filter(({ kind }) => kind === 'block').map(({ id }) => cannotBypass(parallel, id));
    expect(reasons).toContain('bare-branch');
    const meeting = parallel.components.find(
      ({ id }) => parallel.tubes.filter(({ from, to }) => from[0] === id || to[0] === id).length > 2,
    );
    expect(cannotBypass(parallel, meeting?.id as string)).toBe('not-two-tubes');
  });
});
