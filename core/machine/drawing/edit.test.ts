import { usualLoop } from '../catalogue/testLoops.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { findCataloguePart, TUBE_KINDS, type CataloguePart, type TubeKind } from '../catalogue/parts.js';
import { loopFindings } from '../build-checks/loopFindings.js';
import type { LoopComponent, LoopFile } from '../loop-file/loopFile.js';
import {
  addTube,
  bendTube,
  broughtIn,
  movePart,
  movePort,
  outsideCase,
  placePart,
  refuseTube,
  removeFromDrawing,
  snap,
  turnRound,
} from './edit.js';

const kind = TUBE_KINDS[0] as TubeKind;
const partOf = (loop: LoopFile, id: string): LoopComponent => loop.components.find((each) => each.id === id) as LoopComponent;

describe('drawing a loop', () => {
  it('moves a part with its ports and box, and lets the drawing say how long its tubes are', () => {
    const loop = usualLoop();
    const before = partOf(loop, 'roof');
    const moved = movePart(loop, 'roof', [10, -20, 5]);
    const after = partOf(moved, 'roof');
    expect(after.box?.min).toEqual(before.box?.min.map((mm, axis) => mm + ([10, -20, 5][axis] as number)));
    expect(after.ports.a?.[1]).toBe((before.ports.a?.[1] as number) - 20);
    for (const tube of moved.tubes) {
      const touched = tube.from[0] === 'roof' || tube.to[0] === 'roof';
      expect(tube.length_mm === undefined).toBe(touched);
    }
    expect(partOf(loop, 'roof')).toBe(before);
  });

  it('gives the same loop back when nothing moved', () => {
    const loop = usualLoop();
    expect(movePart(loop, 'roof', [0, 0, 0])).toBe(loop);
  });

  it('snaps to five millimetres', () => {
    expect([snap(102.4), snap(102.6), snap(-3)].map((mm) => mm + 0)).toEqual([100, 105, -5]);
  });

  it('bends a tube and moves a port', () => {
    const loop = usualLoop();
    const [first] = loop.tubes as [LoopFile['tubes'][number]];
    expect(bendTube(loop, first.id, [[1, 2, 3]]).tubes[0]).toMatchObject({ path: [[1, 2, 3]] });
    expect(partOf(movePort(loop, 'pump', 'in', [9, 9, 9]), 'pump').ports.in).toEqual([9, 9, 9]);
  });

  it('draws a tube between free ports only', () => {
    const added = placePart(usualLoop(), findCataloguePart('block-memory') as CataloguePart, 'board');
    expect(refuseTube(added.loop, ['pump', 'out'], [added.id, 'in'])).toMatch(/one bore takes one fitting/);
    expect(refuseTube(added.loop, [added.id, 'in'], [added.id, 'out'])).toMatch(/joins two parts/);
    const cut = removeFromDrawing(added.loop, added.loop.tubes[1]?.id as string);
    const from = added.loop.tubes[1]?.from as [string, string];
    const to = added.loop.tubes[1]?.to as [string, string];
    expect(refuseTube(cut, from, [added.id, 'in'])).toBeNull();
    const closed = addTube(addTube(cut, from, [added.id, 'in'], kind), [added.id, 'out'], to, kind);
    expect(loopFindings(closed).filter(({ weight }) => weight === 'stop')).toEqual([]);
  });

  it('takes a part away with the tubes that ended at it', () => {
    const loop = removeFromDrawing(usualLoop(), 'processor');
    expect(loop.tubes.some(({ from, to }) => from[0] === 'processor' || to[0] === 'processor')).toBe(false);
    expect(loop.tubes.length).toBe(usualLoop().tubes.length - 2);
  });
});

describe('a part that is turned round', () => {
  const loop = usualLoop();
  it('lies where it lay, its ports on the other side, and twice is as before', () => {
    fc.assert(
      fc.property(fc.constantFrom(...loop.components.map(({ id }) => id)), fc.constantFrom(0, 1, 2), (id, axis) => {
        const once = turnRound(loop, id, axis as 0 | 1 | 2);
        const before = loop.components.find((part) => part.id === id);
        const now = once.components.find((part) => part.id === id);
        if (before?.box) expect(now?.box).toBeDefined();
        const twice = turnRound(once, id, axis as 0 | 1 | 2).components.find((part) => part.id === id);
        for (const [port, at] of Object.entries(before?.ports ?? {}))
          at.forEach((mm, index) => expect(twice?.ports[port]?.[index]).toBeCloseTo(mm, 9));
        expect(once.components.filter((part) => part.id !== id).length).toBe(loop.components.length - 1);
      }),
      { numRuns: 30 },
    );
  });

  it('keeps the liquid of its box, with every port inside the same span', () => {
    const radiator = loop.components.find(({ kind }) => kind === 'radiator');
    const turned = turnRound(loop, radiator?.id ?? '', 0).components.find(({ id }) => id === radiator?.id);
    expect(turned?.box?.min[0]).toBeLessThan(turned?.box?.max[0] ?? 0);
    expect(turned?.ports).not.toEqual(radiator?.ports);
  });
});

describe('parts outside the case', () => {
  it('are found once the case is made smaller, and come in without a part of them left outside', () => {
    const wide = usualLoop();
    const small = { ...wide, case: { name: 'slim', depth_mm: 250, height_mm: 220, width_mm: 120 } };
    const lost = outsideCase(small);
    expect(lost.length).toBeGreaterThan(0);
    expect(outsideCase({ ...wide, case: 'large-tower' })).toEqual([]);
    const back = lost.reduce((so, { id }) => broughtIn(so, id), small as typeof wide);
    expect(outsideCase(back)).toEqual([]);
  });
});
