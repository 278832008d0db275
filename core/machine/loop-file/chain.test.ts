import { loopOf, part, tube, usualLoop } from '../catalogue/testLoops.js';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { chainEntries, closeChain, flowOrder, freshId, isSeriesLoop } from './chain.js';
import { tubeName } from '../catalogue/names.js';
import { readLoopFile } from './loopFileSchema.js';

const example = readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));
const ids = (loop: typeof example): string[] => flowOrder(loop).links.map(({ component }) => component.id);

describe('flow order', () => {
  it('walks once round from the reservoir, the way the coolant goes', () => {
    expect(ids(example)).toEqual(['res', 'pump', 'gpu', 'cpu', 'top', 'front']);
    expect(flowOrder(example).links.map(({ tube }) => tube?.id)).toEqual(['t0', 't1', 't2', 't3', 't4', 't5']);
  });

  it('does not depend on the order in the file', () => {
    const shuffled = { ...example, components: [...example.components].reverse(), tubes: [...example.tubes].reverse() };
    expect(ids(shuffled)).toEqual(ids(example));
  });

  it('names what lies beside the path', () => {
    const loop = loopOf(
      [part('a', 'pump', 1), part('b', 'block', 1), part('c', 'block', 1)],
      [tube('t1', 'a', 'b'), tube('t2', 'b', 'a'), tube('t3', 'a', 'c')],
    );
    const { offPath } = flowOrder(loop);
    expect(offPath.components.map(({ id }) => id)).toEqual(['c']);
    expect(offPath.tubes.map(({ id }) => id)).toEqual(['t3']);
    expect(isSeriesLoop(loop)).toBe(false);
  });

  it('stops where the loop is open, and at a ring that does not come back to its start', () => {
    expect(isSeriesLoop(loopOf([part('a', 'pump', 1), part('b', 'block', 1)], [tube('t', 'a', 'b')]))).toBe(false);
    const knot = loopOf(
      [part('a', 'reservoir', 1), part('b', 'block', 1), part('c', 'block', 1)],
      [tube('1', 'a', 'b'), tube('2', 'b', 'c'), tube('3', 'c', 'b')],
    );
    expect(ids(knot)).toEqual(['a', 'b', 'c']);
    expect(isSeriesLoop(knot)).toBe(false);
  });

  it('has nothing to say about an empty loop', () => {
    expect(flowOrder(loopOf([])).links).toEqual([]);
    expect(isSeriesLoop(loopOf([]))).toBe(false);
  });

  it('names a tube by what it joins', () => {
    expect(tubeName(example, example.tubes[2] as (typeof example.tubes)[number])).toBe('gpu → cpu');
  });
});

describe('closing a chain', () => {
  it('gives back the same loop when nothing was changed', () => {
    const loop = usualLoop();
    expect(closeChain(loop, chainEntries(loop, loop.tubes[0] as never))).toEqual(loop);
  });

  it('keeps the bends of a tube whose ends stayed, and drops those of one whose ends moved', () => {
    const entries = chainEntries(example, example.tubes[0] as never);
    const swapped = [entries[0], entries[1], entries[3], entries[2], entries[4], entries[5]] as typeof entries;
    const closed = closeChain(example, swapped);
    expect(closed.tubes.find(({ id }) => id === 't4')?.path).toEqual(example.tubes[4]?.path);
    expect(closed.tubes.find(({ from }) => from[0] === 'pump')?.path).toEqual([]);
    expect(isSeriesLoop(closed)).toBe(true);
  });

  it('lays no tube for a single part', () => {
    const loop = loopOf([part('a', 'block', 1)]);
    expect(closeChain(loop, [{ component: loop.components[0] as never, cut: {} as never }]).tubes).toEqual([]);
  });

  it('finds an id that is free', () => {
    const taken = new Set(['tube', 'tube-2']);
    expect(freshId(taken, 'tube')).toBe('tube-3');
    expect(freshId(taken, 'tube')).toBe('tube-4');
  });
});
