import { usualLoop } from '../catalogue/testLoops.js';
import { describe, expect, it } from 'vitest';
import { findCataloguePart, type CataloguePart } from '../catalogue/parts.js';
import type { LoopFile } from '../loop-file/loopFile.js';
import { reachOf, exchangePart, type TubeReach } from './exchange.js';

const part = (key: string): CataloguePart => findCataloguePart(key) as CataloguePart;
const exchanged = (loop: LoopFile, id: string, key: string): LoopFile => {
  const answer = exchangePart(loop, id, part(key));
  if ('refusal' in answer) throw new Error(answer.refusal);
  return answer.loop;
};
const reach = (loop: LoopFile, id: string, key: string): TubeReach[] => reachOf(loop, exchanged(loop, id, key), id);

describe('exchanging a part', () => {
  it('keeps its id, its tubes and where its inlet sits', () => {
    const loop = usualLoop();
    const after = exchanged(loop, 'roof', 'radiator-240-30');
    const [was, now] = [loop, after].map((each) => each.components.find(({ id }) => id === 'roof')) as [
      LoopFile['components'][number],
      LoopFile['components'][number],
    ];
    expect(now.ports.a).toEqual(was.ports.a);
    expect(now.volume_ml).toBe(120);
    expect(after.tubes.map(({ id }) => id)).toEqual(loop.tubes.map(({ id }) => id));
  });

  it('lets a tube reach that has length to spare, and shortens one that has too much', () => {
    const tubes = reach(usualLoop(), 'graphics', 'block-graphics');
    for (const { hasMm, wayMm, verdict, cutMm } of tubes) {
      expect(verdict).toBe(hasMm > wayMm + 25 ? 'shorten' : 'reaches');
      if (verdict === 'shorten') expect(cutMm).toBe(Math.floor(hasMm - wayMm));
    }
  });

  it('finds a tube that no longer reaches, and says how long the new piece is', () => {
    const loop = usualLoop();
    loop.tubes = loop.tubes.map((tube) => (tube.to[0] === 'roof' ? { ...tube, length_mm: 60 } : tube));
    const short = reach(loop, 'roof', 'radiator-360-30').find(({ verdict }) => verdict === 'too-short');
    expect(short?.cutMm).toBe(Math.ceil((short?.wayMm as number) + 12));
  });

  it('asks for a new piece of every rigid tube whose way changes', () => {
    const loop = usualLoop();
    loop.tubes = loop.tubes.map((tube) => ({ ...tube, material: 'acrylic', length_mm: 400 }));
    expect(reach(loop, 'roof', 'radiator-360-30').every(({ verdict }) => verdict === 'new-piece')).toBe(true);
  });

  it('refuses a part that is not there', () => {
    expect(exchangePart(usualLoop(), 'moon', part('pump-large'))).toEqual({ refusal: 'There is no such part in this loop.' });
  });
});
