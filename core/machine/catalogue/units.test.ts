import { describe, expect, it } from 'vitest';
import { loopFacts } from '../../bench/procedures/loopFacts.js';
import { inspectItems } from '../../bench/inspection/items.js';
import { WATER } from '../liquids/fluids.js';
import { cannotBypass } from '../drawing/bypass.js';
import { countFittings } from '../loop-file/fittings.js';
import { flowOrder } from '../loop-file/chain.js';
import { readLoopFile } from '../loop-file/loopFileSchema.js';
import type { LoopFile } from '../loop-file/loopFile.js';
import { loopVolume } from '../loop-file/volume.js';
import { addPart, addUnit, movePart, removePart } from './edit.js';
import { findCataloguePart, type CataloguePart } from './parts.js';
import { emptyLoop } from './starters.js';
import { UNITS, type CatalogueUnit } from './units.js';

const stock = (key: string): CataloguePart => findCataloguePart(key) as CataloguePart;
const order = (loop: LoopFile): string[] => flowOrder(loop).links.map(({ component }) => component.id);
/** One unit, a block, a radiator. */
const small = (unit: CatalogueUnit = UNITS[1] as CatalogueUnit): LoopFile =>
  addPart(
    addPart(addUnit(emptyLoop('small'), unit, 'tray', null), stock('block-processor'), 'board', null),
    stock('radiator-240-30'),
    'roof',
    null,
  );

describe('pump and reservoir in one piece', () => {
  it('is a reservoir and a pump in the file, with a channel that holds next to nothing', () => {
    for (const unit of UNITS) {
      const loop = small(unit);
      expect(() => readLoopFile(loop), unit.key).not.toThrow();
      expect(loop.tubes.filter(({ inside }) => inside)).toHaveLength(1);
      const channel = loop.tubes.find(({ inside }) => inside)?.id;
      expect(loopVolume(loop).parts.find(({ id }) => id === channel)?.volumeMl).toBeLessThan(0.2);
    }
  });

  it('has no tube to cut, no fittings and no joint between the two', () => {
    const loop = small();
    const channel = loop.tubes.find(({ inside }) => inside)?.id as string;
    expect(loopFacts(loop, WATER).joints.map(({ id }) => id)).not.toContain(channel);
    expect(inspectItems(loop).map(({ id }) => id)).not.toContain(channel);
    const compression = countFittings(loop).find(({ kind }) => kind === 'compression')?.count;
    expect(compression).toBe(2 * (loop.tubes.length - 1));
  });

  it('fills like any loop with a reservoir over its pump', () => {
    expect(loopFacts(small(), WATER).fill?.primes).toBe(true);
  });

  it('moves and goes as one', () => {
    const loop = small();
    const [reservoir, pump, block, radiator] = order(loop) as [string, string, string, string];
    // up past the unit is round to the end: a loop has none
    expect(order(movePart(loop, block, -1))).toEqual([reservoir, pump, radiator, block]);
    const moved = movePart(loop, radiator, -1);
    expect(order(moved)).toEqual([reservoir, pump, radiator, block]);
    expect(moved.tubes.filter(({ inside }) => inside)).toHaveLength(1);
    const without = removePart(loop, pump);
    expect(order(without)).toEqual([block, radiator]);
  });

  it('is never left out of a loop by half', () => {
    const loop = small();
    for (const id of order(loop).slice(0, 2)) expect(cannotBypass(loop, id)).toMatch(/one-piece|reservoir/);
  });
});
