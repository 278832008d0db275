import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { solveFlow } from '../flow/flow.js';
import { waterAt } from '../../machine/liquids/fluids.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import { parallelBlocks, swapBlocks } from './variants.js';

const fluid = waterAt(35);
const example = (): LoopFile => readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));
const flowThrough = (loop: LoopFile) => solveFlow(loop, { fluid, speeds: {}, closed: [] }).links;

/** The first blocks of the usual layout joined directly. */
const neighbours = (): LoopFile => {
  const loop = usualLoop();
  const blocks = loop.components.filter(({ kind }) => kind === 'block');
  const joined = loop.tubes.some(({ from, to }) => blocks.some(({ id }) => id === from[0]) && blocks.some(({ id }) => id === to[0]));
  expect(joined).toBe(true);
  return loop;
};

describe('blocks side by side', () => {
  it('share the flow between them, and more flows in all', () => {
    const loop = neighbours();
    const [first, second] = loop.components.filter(({ kind }) => kind === 'block').map(({ id }) => id) as [string, string];
    const parallel = parallelBlocks(loop);
    expect(parallel).not.toBe(loop);
    expect(() => readLoopFile(parallel)).not.toThrow();
    const [before, after] = [flowThrough(loop), flowThrough(parallel)];
    const pump = loop.components.find(({ kind }) => kind === 'pump')?.id as string;
    const [a, b] = [first, second].map((id) => after.get(id)?.flowLph ?? 0) as [number, number];
    expect(a).toBeGreaterThan(0);
    expect(b).toBeGreaterThan(0);
    expect(a + b).toBeCloseTo(after.get(pump)?.flowLph ?? 0, 3);
    expect(after.get(pump)?.flowLph).toBeGreaterThan(before.get(pump)?.flowLph ?? Infinity);
    expect(Math.max(a, b)).toBeLessThan(before.get(first)?.flowLph ?? 0);
  });

  it('lose the same pressure on both ways', () => {
    const loop = neighbours();
    const blocks = loop.components.filter(({ kind }) => kind === 'block').map(({ id }) => id);
    const parallel = parallelBlocks(loop);
    const links = flowThrough(parallel);
    const way = (id: string): number =>
      parallel.tubes
        .filter(({ from, to }) => from[0] === id || to[0] === id)
        .reduce((sum, tube) => sum + (links.get(tube.id)?.dropKpa ?? 0), links.get(id)?.dropKpa ?? 0);
    expect(way(blocks[0] as string)).toBeCloseTo(way(blocks[1] as string), 3);
  });

  it('stay as they are where something stands between them', () => {
    const loop = example();
    const cut = { ...loop, tubes: loop.tubes.filter(({ from, to }) => !(from[0] === 'gpu' || to[0] === 'gpu')) };
    expect(parallelBlocks(cut)).toBe(cut);
  });
});

describe('blocks swapped', () => {
  it('come back as they were when swapped twice', () => {
    expect(swapBlocks(swapBlocks(example()))).toEqual(example());
  });
});
