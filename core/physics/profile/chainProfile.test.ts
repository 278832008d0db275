import { loopOf, part, run, usualLoop } from '../../machine/catalogue/testLoops.js';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import { unrollLoop, type ProfilePart } from './chainProfile.js';

const example = readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));

describe('unrolling a loop', () => {
  it('lays parts and runs in flow order, each beginning where the last one ended', () => {
    const { items, width } = unrollLoop(example);
    expect(items.map(({ id }) => id)).toEqual(['res', 't0', 'pump', 't1', 'gpu', 't2', 'cpu', 't3', 'top', 't4', 'front', 't5']);
    let x = 0;
    for (const item of items) {
      const [start, end] = item.shape === 'run' ? [item.points[0]?.x, item.points.at(-1)?.x] : [item.x0, item.x1];
      expect(start).toBeCloseTo(x, 9);
      x = end as number;
    }
    expect(width).toBeCloseTo(x, 9);
  });

  it('keeps every height true', () => {
    const { items, lowMm, highMm } = unrollLoop(example);
    const top = items.find(({ id }) => id === 'top') as ProfilePart;
    expect([top.bottomMm, top.topMm]).toEqual([460, 490]);
    const run = items.find(({ id }) => id === 't1');
    expect(run?.shape === 'run' && run.points.map(({ yMm }) => yMm)).toEqual([60, 60, 150, 240]);
    expect([lowMm, highMm]).toEqual([0, 490]);
  });

  it('draws areas of vessels in proportion to their volumes', () => {
    const { items } = unrollLoop(example);
    const area = (id: string): number => {
      const vessel = items.find((item) => item.id === id) as ProfilePart;
      return (vessel.x1 - vessel.x0) * (vessel.topMm - vessel.bottomMm);
    };
    expect(area('res') / area('top')).toBeCloseTo(260 / 180, 6);
  });

  it('shows ports that open as handles at their heights', () => {
    const { items } = unrollLoop(example);
    expect((items.find(({ id }) => id === 'gpu') as ProfilePart).handles).toEqual([{ port: 'low', closure: 'valve', yMm: 225 }]);
  });

  it('labels a catalogue part shortly, and keeps a name that somebody gave', () => {
    const loop = usualLoop();
    Object.assign(loop.components[4] as object, { label: 'Old block' });
    const names = unrollLoop(loop).items.flatMap((item) => (item.shape === 'run' ? [] : [item.shortName]));
    expect(names).toEqual(['reservoir', 'pump', 'drain', 'graphics', 'Old block', 'roof', 'front']);
  });

  it('tells what it does not show', () => {
    const loop = loopOf([part('a', 'pump', 1), part('b', 'block', 1), part('c', 'block', 1)], [run('t1', 'a', 'b'), run('t2', 'b', 'a')]);
    expect(unrollLoop(loop).notShown).toEqual(['c']);
  });

  it('copes with an empty loop and with runs of no length', () => {
    expect(unrollLoop(loopOf([])).items).toEqual([]);
    const flat = loopOf([part('a', 'pump', 1), part('b', 'block', 1, [10, 0, 0])], [run('t', 'a', 'b'), run('u', 'b', 'a')]);
    expect(unrollLoop(flat).items.every((item) => item.shape !== 'run' || item.points.every(({ x }) => Number.isFinite(x)))).toBe(true);
  });
});
