import { describe, expect, it } from 'vitest';
import { usualLoop } from '../catalogue/testLoops.js';
import { distanceMm, portPosition } from './loopFile.js';
import { swings } from './swing.js';

describe('how far a block comes off its chip', () => {
  it('is what its tubes are longer than straight, the shortest first', () => {
    const loop = usualLoop();
    const straight = new Map(loop.tubes.map((tube) => [tube.id, distanceMm(portPosition(loop, tube.from), portPosition(loop, tube.to))]));
    const longer = (by: (index: number) => number) => ({
      ...loop,
      tubes: loop.tubes.map((tube, index) => ({ ...tube, material: 'epdm', length_mm: (straight.get(tube.id) ?? 0) + by(index) })),
    });
    for (const { mm } of swings(longer(() => 0))) expect(mm).toBeCloseTo(0, 6);
    for (const { mm } of swings(longer(() => 40))) expect(mm).toBeCloseTo(40, 6);
    const own = loop.tubes.map(({ from, to }, index) => (from[0] === 'processor' || to[0] === 'processor' ? index : Infinity));
    expect(swings(longer((index) => 10 + index)).find(({ part }) => part.id === 'processor')?.mm).toBeCloseTo(10 + Math.min(...own), 6);
  });

  it('is nothing on rigid tube', () => {
    const loop = usualLoop();
    const rigid = { ...loop, tubes: loop.tubes.map((tube) => ({ ...tube, material: 'petg' })) };
    expect(swings(rigid).map(({ mm }) => mm)).toEqual(swings(rigid).map(() => null));
  });
});
