import { often } from '../../../tests/often.js';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { buildNetwork } from '../geometry/network.js';
import { STANDING } from '../../machine/loop-file/orientation.js';
import { turnNetwork } from '../geometry/turned.js';
import { generateSpatialLoop } from '../../machine/loop-file/generatedLoops.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import type { LoopComponent, LoopFile } from '../../machine/loop-file/loopFile.js';
import { loopVolume } from '../../machine/loop-file/volume.js';
import { findTrappedAir } from '../air/pockets.js';
import { sweepPockets, type SweptPocket } from '../air/sweep.js';
import { solveFlow } from '../flow/flow.js';
import { afterLastCrest } from './fallBack.js';
import type { FrontCell } from './frontPath.js';
import { simulateFill } from './fillSimulation.js';
import { fillByGravity } from './gravityFill.js';

const example = readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));
const water = { densityKgM3: 998.2, viscosityMPaS: 1.0016 };
const partOf = (loop: LoopFile, id: string): LoopComponent => loop.components.find((part) => part.id === id) as LoopComponent;

/** Reservoir on the floor, a tube up to a crest and down again to the return. */
function hill(crestMm: number, marks: { max_fill_ml: number; low_mark_ml: number }): LoopFile {
  const at = (x: number, y: number): readonly [number, number, number] => [x, y, 50];
  return {
    format: 'lavacrum-loop',
    version: 1,
    components: [
      {
        id: 'res',
        kind: 'reservoir',
        volume_ml: 200,
        ...marks,
        box: { min: [0, 0, 0], max: [100, 200, 10] },
        ports: { back: at(100, 200), out: at(0, 0) },
        flow: ['back', 'out'],
      },
      {
        id: 'pump',
        kind: 'pump',
        volume_ml: 10,
        ports: { in: at(0, 0), out: at(20, 0) },
        flow: ['in', 'out'],
        curve: [[0, 10], [600, 0]], // prettier-ignore
      },
    ],
    tubes: [
      { id: 'in', from: ['res', 'out'], to: ['pump', 'in'], bore_mm: 10, outer_mm: 13, material: 'epdm' },
      {
        id: 'over',
        from: ['pump', 'out'],
        to: ['res', 'back'],
        bore_mm: 10,
        outer_mm: 13,
        material: 'epdm',
        path: [at(20, crestMm), at(100, crestMm)],
      },
    ],
  };
}
/** mL in 1 mm of 10 mm bore */
const PER_MM = (Math.PI / 4) * 0.1;

describe('filling with the pump in pulses', () => {
  it('counts the reservoir and what stands below its surface as filled by itself', () => {
    const fill = simulateFill(hill(600, { max_fill_ml: 180, low_mark_ml: 60 }), water);
    // 180 mL stand 180 mm high; the rising tube fills to there
    expect(fill.passiveMl).toBeCloseTo(180 + 10 + 180 * PER_MM, 0);
  });

  it('needs one pulse where the working volume reaches over the crest and back, and nothing falls back', () => {
    const fill = simulateFill(hill(600, { max_fill_ml: 180, low_mark_ml: 60 }), water);
    expect(fill.primes).toBe(true);
    expect(fill.pulses.length).toBe(1);
    expect(fill.pulses[0]).toMatchObject({ fallsBackMl: 0 });
    expect(fill.overflowMl).toBe(0);
    // the crest at 600 mm above a surface that has fallen by what the rise from 180 took
    const risen = 420 * PER_MM;
    expect(fill.liftMm).toBeGreaterThan(600 - 180);
    expect(fill.liftMm).toBeLessThan(600 - (180 - risen - 85 * PER_MM) + 10);
    expect(fill.totalMl).toBeCloseTo(loopVolume(hill(600, { max_fill_ml: 180, low_mark_ml: 60 })).volumeMl - 20, 6);
  });

  it('lets a wide return leg run back when the pump stops, for gas enters at a port above the surface, and says what runs over', () => {
    const wide = hill(600, { max_fill_ml: 180, low_mark_ml: 60 });
    wide.tubes = wide.tubes.map((tube) => (tube.id === 'over' ? { ...tube, bore_mm: 16, outer_mm: 22 } : tube));
    const fill = simulateFill(wide, water);
    // 400 mm down to the port, of a bore in which gas rises past the liquid; the level stretch on top lies on the crest
    const legMl = 400 * (Math.PI / 4) * 0.256;
    expect(fill.pulses.at(-1)?.fallsBackMl).toBeGreaterThan(legMl - 2);
    expect(fill.overflowMl).toBeCloseTo((fill.pulses.at(-1)?.fallsBackMl as number) - 20, 6);
  });

  it('lets the column fall back to the surface between pulses that do not reach the crest', () => {
    // 20 mL reach 255 mm up the tube, short of the crest
    const fill = simulateFill(hill(600, { max_fill_ml: 180, low_mark_ml: 160 }), water);
    // so it is poured in one go while the pump runs, until the return is reached
    expect(fill.pulses.length).toBe(1);
    expect(fill.pulses[0]?.pouredRunning).toBe(true);
    expect(fill.pulses[0]?.movedMl).toBeGreaterThan(20);
    expect(fill.finished).toBe(true);
    const poured = fill.pulses.reduce((sum, { refillMl }) => sum + refillMl, fill.passiveMl);
    expect(poured).toBeCloseTo(fill.totalMl, 9);
  });

  it('slows a weaker pump less to last as long', () => {
    const slow = hill(600, { max_fill_ml: 180, low_mark_ml: 60 });
    partOf(slow, 'pump').curve = [[0, 6], [600, 0]]; // prettier-ignore
    const fast = simulateFill(hill(600, { max_fill_ml: 180, low_mark_ml: 60 }), water);
    expect(simulateFill(slow, water).pulses[0]?.speed).toBeGreaterThan(fast.pulses[0]?.speed as number);
  });

  it('says that a pump too weak for the lift does not prime, and by how much', () => {
    const weak = hill(1500, { max_fill_ml: 180, low_mark_ml: 60 });
    const fill = simulateFill(weak, water);
    // 10 kPa of water stand 1 022 mm high
    expect(fill.shutoffMm).toBeCloseTo(10 / (998.2 * 9.80665e-6), 6);
    expect(fill.primes).toBe(false);
    expect(fill.liftMm).toBeGreaterThan(fill.shutoffMm);
  });

  it('leaves the gas that stays at the running flow out of the total, all that may stay out of the least, and none out of the most', () => {
    const fill = simulateFill(example, water);
    const whole = loopVolume(example).volumeMl;
    const turned = turnNetwork(buildNetwork(example), STANDING.upright);
    const swept = sweepPockets(
      turned,
      example,
      findTrappedAir(turned).pockets,
      solveFlow(example, { fluid: water, speeds: {}, closed: [] }).links,
    );
    const sum = (of: (pocket: SweptPocket) => number): number => swept.reduce((ml, each) => ml + of(each), 0);
    expect(fill.mostMl).toBeCloseTo(whole - 30, 6);
    expect(fill.totalMl).toBeCloseTo(whole - 30 - sum(({ staysMl }) => staysMl), 0);
    expect(fill.leastMl).toBeCloseTo(whole - 30 - 180 - (10 / 390) * 180, 0);
    expect(fill).toMatchObject({ primes: true, finished: true, tooQuick: null });
  });

  it('runs no pulse that a hand cannot switch: the pump is slowed, to what still lifts', () => {
    const strong = hill(300, { max_fill_ml: 180, low_mark_ml: 120 });
    partOf(strong, 'pump').curve = [[0, 20], [900, 0]]; // prettier-ignore
    const fill = simulateFill(strong, water);
    for (const { runS, speed, pouredRunning, movedMl } of fill.pulses) {
      if (pouredRunning) expect(movedMl / runS).toBeLessThanOrEqual(25 + 1e-6);
      else expect(runS).toBeGreaterThanOrEqual(1.95);
      expect(speed).toBeLessThan(1);
      expect(speed ** 2 * fill.shutoffMm).toBeGreaterThanOrEqual(fill.liftMm);
    }
    expect(fill.tooQuick).toBeNull();
    partOf(strong, 'pump').speed_fixed = true;
    const fixed = simulateFill(strong, water);
    expect(fixed.tooQuick).toBe('pump');
    expect(fixed.pulses.every(({ speed }) => speed === 1)).toBe(true);
  });

  it('pours what the loop takes, in pulses within the working volume, whatever the loop', () => {
    fc.assert(
      fc.property(fc.nat(100_000), (seed) => {
        const loop = generateSpatialLoop(seed);
        const fill = simulateFill(loop, water);
        const res = partOf(loop, 'res');
        const working = (res.max_fill_ml as number) - (res.low_mark_ml as number);
        const poured = fill.pulses.reduce((sum, { refillMl }) => sum + refillMl, fill.passiveMl);
        expect(poured).toBeCloseTo(fill.totalMl, 6);
        expect(fill.totalMl).toBeLessThanOrEqual(loopVolume(loop).volumeMl + 1e-6);
        const last = fill.pulses.at(-1);
        for (const pulse of fill.pulses) {
          const { runS, movedMl, fallsBackMl, refillMl, pouredRunning } = pulse;
          if (!pouredRunning) expect(movedMl).toBeLessThanOrEqual(working + 1e-9);
          // pouring to the mark also refills what lies below the surface
          if (pulse !== last) expect(refillMl).toBeGreaterThanOrEqual(movedMl - fallsBackMl - 1e-9);
          expect(refillMl).toBeLessThanOrEqual(movedMl + 1e-9);
          expect(runS).toBeGreaterThan(0);
          expect(fallsBackMl).toBeGreaterThanOrEqual(0);
        }
        if (fill.primes) expect(fill.liftMm).toBeLessThanOrEqual(fill.shutoffMm);
        expect(fill.leastMl).toBeLessThanOrEqual(fill.totalMl + 1e-9);
        expect(fill.totalMl).toBeLessThanOrEqual(fill.mostMl + 1e-6);
      }),
      { numRuns: often(100) },
    );
  });
});

describe('the last crest passed', () => {
  const cells = (...heights: number[]): FrontCell[] =>
    heights.map((heightMm) => ({
      node: 0,
      volumeMl: 1,
      heightMm,
      liftMm: heightMm,
      lossKpa: 0,
      vesselKeepsBelowMm: Number.NEGATIVE_INFINITY,
    }));

  it('is none while the column still climbs', () => {
    expect(afterLastCrest(cells(0, 10, 20, 30), 4)).toBe(0);
  });

  it('lies behind the front once it goes down', () => {
    expect(afterLastCrest(cells(0, 10, 20, 10, 0), 4)).toBe(3);
  });

  it('is the later of two hills, whichever is higher', () => {
    expect(afterLastCrest(cells(0, 30, 10, 20, 5), 5)).toBe(4);
  });
});

describe('filling by gravity without a reservoir', () => {
  const loop = structuredClone(example);
  for (const part of loop.components) if (part.kind === 'reservoir') part.kind = 'radiator';

  it('pours at most the loop, most of it in the first stand', () => {
    const { turns, totalMl } = fillByGravity(loop);
    expect(totalMl).toBeLessThanOrEqual(loopVolume(loop).volumeMl + 1e-9);
    expect(turns.length).toBeGreaterThan(0);
    expect(turns.map(({ pouredMl }) => pouredMl)).toEqual([...turns.map(({ pouredMl }) => pouredMl)].sort((a, b) => b - a));
    expect(totalMl).toBeGreaterThan(0.9 * loopVolume(loop).volumeMl);
  });

  it('fills a loop whole in one stand where every part rises to the port', () => {
    const simple: LoopFile = {
      format: 'lavacrum-loop',
      version: 1,
      components: [
        { id: 'low', kind: 'block', volume_ml: 50, ports: { a: [0, 0, 0], b: [10, 0, 0] }, flow: ['a', 'b'] },
        {
          id: 'high',
          kind: 'block',
          volume_ml: 50,
          ports: { a: [0, 100, 0], b: [10, 100, 0], top: [5, 105, 0] },
          flow: ['a', 'b'],
          closures: { top: 'plug' },
        },
      ],
      tubes: [
        { id: 'up', from: ['low', 'b'], to: ['high', 'a'], bore_mm: 10, outer_mm: 13, material: 'epdm' },
        { id: 'down', from: ['high', 'b'], to: ['low', 'a'], bore_mm: 10, outer_mm: 13, material: 'epdm' },
      ],
    };
    const { turns, totalMl, port } = fillByGravity(simple);
    expect(port).toBe('high.top');
    expect(turns.map(({ orientation }) => orientation)).toEqual(['upright']);
    expect(totalMl).toBeCloseTo(loopVolume(simple).volumeMl, 6);
    expect(findTrappedAir(turnNetwork(buildNetwork(simple), STANDING.upright)).totalMl).toBeCloseTo(0, 6);
  });
});
