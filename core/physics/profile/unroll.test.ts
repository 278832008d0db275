import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { buildNetwork } from '../geometry/network.js';
import { STANDING, STANDING_NAMES } from '../../machine/loop-file/orientation.js';
import { turnNetwork } from '../geometry/turned.js';
import { generateNetwork, generateParallelLoop, generateSpatialLoop } from '../../machine/loop-file/generatedLoops.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import { placeInOrder } from './order.js';
import { loopOf, part, tube, usualLoop } from '../../machine/catalogue/testLoops.js';
import { unrollTurned, unrollUpright, type DrawnVessel } from './unroll.js';

const example = readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));
const unroll = (standing: keyof typeof STANDING = 'upright') =>
  unrollTurned(turnNetwork(buildNetwork(example), STANDING[standing]), example);
const vessel = (id: string, standing: keyof typeof STANDING = 'upright'): DrawnVessel =>
  unroll(standing).items.find((item): item is DrawnVessel => item.shape === 'vessel' && item.id === id) as DrawnVessel;

describe('unrolling a loop', () => {
  it('goes along the flow, part and tube in turn, and says where the end leads home', () => {
    expect(unroll().items.map(({ id }) => id)).toEqual(['res', 't0', 'pump', 't1', 'gpu', 't2', 'cpu', 't3', 'top', 't4', 'front', 't5']);
    expect(unroll().bridges.map(({ towards }) => towards)).toEqual(['res']);
  });

  it('labels a catalogue part shortly, and keeps a name that somebody gave', () => {
    const loop = usualLoop();
    Object.assign(loop.components[4] as object, { label: 'Old block' });
    const names = unrollUpright(loop).unrolled.items.flatMap((item) => (item.shape === 'tube' ? [] : [item.name]));
    expect(names).toEqual(['reservoir', 'pump', 'drain', 'graphics', 'Old block', 'roof', 'front']);
  });

  it('copes with a loop of nothing, with tubes of no length, and with what nobody measured', () => {
    expect(unrollUpright(loopOf([])).unrolled).toMatchObject({ items: [], lowMm: 0, highMm: 100 });
    const flat = loopOf([part('a', 'pump', 1), part('b', 'radiator', 1, [10, 0, 0])], [tube('t', 'a', 'b'), tube('u', 'b', 'a')]);
    const { items } = unrollUpright(flat).unrolled;
    expect(items.map(({ shape }) => shape)).toEqual(['part', 'tube', 'part', 'tube']);
    expect(items.every((item) => item.shape !== 'tube' || item.points.every(({ x }) => Number.isFinite(x)))).toBe(true);
  });

  it('draws every height true, whichever way the case stands', () => {
    expect(vessel('front')).toMatchObject({ bottomMm: 60, topMm: 450 });
    expect(vessel('front').ports.map(({ mm }) => mm)).toEqual([440, 440]);
    expect(vessel('front', 'on-back')).toMatchObject({ bottomMm: 400, topMm: 430 });
    expect(vessel('front', 'upside-down')).toMatchObject({ bottomMm: -450, topMm: -60 });
  });

  it('gives a vessel an area in proportion to its volume, in every stand', () => {
    const area = ({ slices }: DrawnVessel): number =>
      slices.slice(1).reduce((sum, slice, index) => {
        const below = slices[index] as (typeof slices)[number];
        return sum + (slice.half + below.half) * (slice.mm - below.mm);
      }, 0);
    const perMl = area(vessel('front')) / 180;
    for (const standing of STANDING_NAMES) expect(area(vessel('res', standing)) / 260 / perMl).toBeCloseTo(1, 1);
  });

  it('puts a part where branches meet after all of them, and bridges what does not stand side by side', () => {
    const loop = generateParallelLoop();
    const order = placeInOrder(loop).map(({ kind, index }) => (kind === 'component' ? loop.components[index] : loop.tubes[index])?.id);
    const meet = loop.components.filter(({ kind }) => kind === 'junction')[1]?.id as string;
    for (const tube of loop.tubes.filter(({ to }) => to[0] === meet)) expect(order.indexOf(tube.id)).toBeLessThan(order.indexOf(meet));
  });

  it('places every part and tube once, whatever the loop', () => {
    fc.assert(
      fc.property(fc.nat(10_000), fc.boolean(), (seed, branching) => {
        const loop = branching ? generateNetwork(seed) : generateSpatialLoop(seed);
        const steps = placeInOrder(loop);
        expect(new Set(steps.map(({ kind, index }) => `${kind}${index}`)).size).toBe(steps.length);
        expect(steps.length).toBe(loop.components.length + loop.tubes.length);
      }),
      { numRuns: 100 },
    );
  });
});
