import { describe, expect, it } from 'vitest';
import { usualLoop } from '../catalogue/testLoops.js';
import { addPart, canStandBeside, isInBranch, movePart, putBeside, putInLine, removePart } from '../catalogue/edit.js';
import { findCataloguePart } from '../catalogue/parts.js';
import { idsOf } from './chain.js';
import { componentsOf, flowList, isBranches, type FlowList } from './branches.js';
import { generateLadder, generateNetwork, generateParallelLoop } from './generatedLoops.js';
import { readLoopFile } from './loopFileSchema.js';
import type { LoopFile } from './loopFile.js';

const shape = (list: FlowList | null): unknown => list?.map((item) => (isBranches(item) ? item.branches.map(shape) : item.id));
const shapeOf = (loop: LoopFile): unknown => shape(flowList(loop));
const series = ['reservoir', 'pump', 'drain', 'graphics', 'processor', 'roof', 'front'];

/** What holds in every loop that was laid by a list: a valid file, each port with one tube, nothing left over. */
function sound(loop: LoopFile): void {
  expect(() => readLoopFile(loop)).not.toThrow();
  const ends = loop.tubes.flatMap(({ from, to }) => [String(from), String(to)]);
  expect(new Set(ends).size).toBe(ends.length);
  expect(componentsOf(flowList(loop) ?? []).map(({ id }) => id)).toEqual(loop.components.map(({ id }) => id));
}

describe('a loop as a list with branches', () => {
  it('reads a series loop as its parts, and branches between the junctions where they part and meet', () => {
    expect(shapeOf(usualLoop())).toEqual(series);
    const list = flowList(generateParallelLoop());
    expect(list?.filter(isBranches).map(({ branches }) => branches.map((branch) => branch.length))).toEqual([[1, 1]]);
  });

  it('tells what no list describes: bridges, ladders, open ends, two circuits', () => {
    expect(flowList(generateLadder(1))).not.toBeNull();
    const open = usualLoop();
    expect(flowList({ ...open, tubes: open.tubes.slice(1) })).toBeNull();
    const twice = { ...open, components: [...open.components, ...open.components.map((part) => ({ ...part, id: `${part.id}-b` }))] };
    expect(flowList(twice)).toBeNull();
  });

  it('reads every generated network without a bridge, each part once', () => {
    for (let seed = 1; seed <= 60; seed += 1) {
      const loop = generateNetwork(seed);
      const list = flowList(loop);
      expect(list, String(seed)).not.toBeNull();
      expect(new Set(componentsOf(list ?? [])).size, String(seed)).toBe(loop.components.length);
    }
  });
});

describe('branches in the list', () => {
  it('lays a part beside the one before it, and in line again: the loop is what it was', () => {
    const loop = usualLoop();
    const beside = putBeside(loop, 'processor');
    sound(beside);
    expect(shapeOf(beside)).toEqual(['reservoir', 'pump', 'drain', [['graphics'], ['processor']], 'roof', 'front']);
    expect(isInBranch(beside, 'processor')).toBe(true);
    const back = putInLine(beside, 'processor');
    sound(back);
    expect(shapeOf(back)).toEqual(series);
  });

  it('keeps every tube between parts that stay neighbours as it was', () => {
    const loop = usualLoop();
    const beside = putBeside(loop, 'processor');
    const kept = loop.tubes.filter(({ id }) => beside.tubes.some((tube) => tube.id === id));
    expect(kept).toHaveLength(loop.tubes.length - 3);
    for (const tube of kept) expect(beside.tubes).toContainEqual(tube);
  });

  it('takes a third branch, and no fourth', () => {
    let loop = putBeside(usualLoop(), 'processor');
    expect(canStandBeside(loop, 'roof')).toBe(true);
    loop = putBeside(loop, 'roof');
    sound(loop);
    expect(shapeOf(loop)).toEqual(['reservoir', 'pump', 'drain', [['graphics'], ['processor'], ['roof']], 'front']);
    expect(canStandBeside(loop, 'front')).toBe(false);
  });

  it('adds, moves and takes out inside a branch; what is left alone stands in line', () => {
    const memory = findCataloguePart('block-memory');
    let loop = addPart(putBeside(usualLoop(), 'processor'), memory as NonNullable<typeof memory>, 'board', 'processor');
    const added = [...idsOf(loop)].find((id) => id.startsWith('block-board')) as string;
    sound(loop);
    expect(shapeOf(loop)).toEqual(['reservoir', 'pump', 'drain', [['graphics'], ['processor', added]], 'roof', 'front']);
    loop = movePart(loop, added, -1);
    expect(shapeOf(loop)).toEqual(['reservoir', 'pump', 'drain', [['graphics'], [added, 'processor']], 'roof', 'front']);
    loop = removePart(loop, 'graphics');
    sound(loop);
    expect(shapeOf(loop)).toEqual(['reservoir', 'pump', 'drain', added, 'processor', 'roof', 'front']);
    expect(loop.components.some(({ kind, id }) => kind === 'junction' && id !== 'drain')).toBe(false);
  });

  it('leaves the branches in line where a splitter is taken out', () => {
    const loop = putBeside(usualLoop(), 'processor');
    const split = loop.components.find(({ id }) => id.startsWith('split'))?.id as string;
    const without = removePart(loop, split);
    sound(without);
    expect(shapeOf(without)).toEqual(series);
  });

  it('never branches round the pump or the reservoir', () => {
    const loop = usualLoop();
    for (const id of ['reservoir', 'pump', 'drain']) expect(canStandBeside(loop, id)).toBe(false);
  });
});
