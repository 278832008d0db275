import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { solveFlow } from '../flow/flow.js';
import { loopOf, part, tube } from '../../machine/catalogue/testLoops.js';
import { buildNetwork } from '../geometry/network.js';
import { STANDING, type Tilt } from '../../machine/loop-file/orientation.js';
import { turnNetwork } from '../geometry/turned.js';
import { generateSpatialLoop } from '../../machine/loop-file/generatedLoops.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { loopVolume } from '../../machine/loop-file/volume.js';
import { findTrappedAir } from './pockets.js';
import { clearingVelocity, sweepPockets, velocityIn, type SweptPocket } from './sweep.js';
import { often } from '../../../tests/often.js';

const example = readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));
const water = { densityKgM3: 998.2, viscosityMPaS: 1.0016 };

interface NamedPocket {
  volumeMl: number;
  parts: string[];
  topMm: number;
  sillMm: number;
}
function pocketsOf(loop: LoopFile, tilt: Tilt = STANDING.upright): NamedPocket[] {
  const network = buildNetwork(loop);
  return findTrappedAir(turnNetwork(network, tilt)).pockets.map(({ volumeMl, parts, topMm, sillMm }) => ({
    volumeMl,
    parts: parts.map((part) => network.partIds[part] as string),
    topMm,
    sillMm,
  }));
}

describe('where gas can stay', () => {
  it('finds the high side of the example loop in one pocket, its sill at the reservoir’s return', () => {
    const [pocket, ...others] = pocketsOf(example);
    expect(others).toEqual([]);
    expect(pocket).toMatchObject({ topMm: 490, sillMm: 240, parts: ['front', 'top', 'cpu', 't2', 't3', 't4', 't5'] });
    // roof 180, processor 20, and of the front radiator what lies above 240 of 60 … 450 mm
    const tubes = loopVolume(example).parts.filter(({ id }) => ['t3', 't4'].includes(id));
    const least = 180 + 20 + (210 / 390) * 180 + tubes.reduce((sum, { volumeMl }) => sum + volumeMl, 0);
    expect(pocket?.volumeMl).toBeGreaterThan(least);
  });

  it('finds none below where every part rises to a reservoir on top', () => {
    const loop = structuredClone(example);
    const res = loop.components.find(({ id }) => id === 'res');
    if (res) {
      res.box = { min: [300, 500, 60], max: [350, 670, 110] };
      res.ports = { return: [325, 500, 85], out: [325, 500, 60], fill: [325, 670, 85] };
    }
    loop.tubes = loop.tubes.map((tube) => (tube.id === 't5' ? { ...tube, path: [[360, 470, 100]] } : tube));
    const pockets = pocketsOf(loop);
    // the roof radiator lies above its own ports, and the way out of it dips to the front radiator's ports
    expect(pockets.map(({ parts }) => parts.includes('front'))).toEqual([false, true]);
    expect(pockets[1]?.volumeMl).toBeCloseTo((10 / 390) * 180, 6);
    expect(pockets[0]).toMatchObject({ topMm: 490, sillMm: 440 });
    for (const id of ['cpu', 'gpu', 'pump', 't1', 't2', 't5']) expect(pockets[0]?.parts).not.toContain(id);
  });

  it('gives the place that reaches highest the part of a reservoir, where there is none', () => {
    const loop = structuredClone(example);
    for (const part of loop.components) if (part.kind === 'reservoir') part.kind = 'radiator';
    const pockets = pocketsOf(loop);
    expect(pockets.some(({ parts }) => parts.includes('top'))).toBe(false);
  });

  it('makes a part without any path a pocket of its own, down to its lowest point', () => {
    const loop = structuredClone(example);
    loop.tubes = loop.tubes.filter(({ id }) => id !== 't1' && id !== 't2');
    const alone = pocketsOf(loop).find(({ parts }) => parts.includes('gpu'));
    expect(alone).toMatchObject({ parts: ['gpu'], volumeMl: 60, sillMm: 225, topMm: 240 });
  });

  it('keeps pockets apart from one another and inside their parts, whatever the loop', () => {
    const turns = fc.record({ pitchDeg: fc.integer({ min: -180, max: 180 }), rollDeg: fc.integer({ min: -180, max: 180 }) });
    fc.assert(
      fc.property(fc.nat(100_000), turns, (seed, tilt) => {
        const loop = generateSpatialLoop(seed);
        const volumes = new Map(loopVolume(loop).parts.map(({ id, volumeMl }) => [id, volumeMl]));
        const pockets = pocketsOf(loop, tilt);
        for (const pocket of pockets) {
          const most = pocket.parts.reduce((sum, id) => sum + (volumes.get(id) as number), 0);
          expect(pocket.volumeMl).toBeLessThanOrEqual(most + 1e-9);
          expect(pocket.topMm).toBeGreaterThan(pocket.sillMm);
          expect(pocket.parts).not.toContain('res');
        }
        expect(pockets.map(({ volumeMl }) => volumeMl)).toEqual(pockets.map(({ volumeMl }) => volumeMl).sort((a, b) => b - a));
      }),
      { numRuns: often(200) },
    );
  });
});

describe('what the flow sweeps out', () => {
  const sweep = (speed: number): SweptPocket => {
    const turned = turnNetwork(buildNetwork(example), STANDING.upright);
    const { links } = solveFlow(example, { fluid: water, speeds: { pump: speed }, closed: [] });
    const [swept] = sweepPockets(turned, example, findTrappedAir(turned).pockets, links);
    return swept as SweptPocket;
  };

  it('clears a 10 mm bore that falls steeply from about 0.33 m/s', () => {
    expect(clearingVelocity(10, 1)).toBeCloseTo(1.075 * Math.sqrt(0.0980665), 9);
    expect(velocityIn(10, 240)).toBeCloseTo(0.849, 3);
  });

  it('leaves what stands above a vessel’s ports, and carries the rest at full speed', () => {
    const { sweptMl, staysMl, mayStayMl } = sweep(1);
    // roof: everything above its ports; front: above 440 of 450 mm
    expect(mayStayMl).toBeCloseTo(180 + (10 / 390) * 180, 6);
    expect(staysMl).toBeLessThan(mayStayMl);
    expect(sweptMl + staysMl).toBeCloseTo(findTrappedAir(turnNetwork(buildNetwork(example), STANDING.upright)).totalMl, 6);
  });

  it('goes along a tube that falls by less than what counts as level from cell to cell, however slow, and not down a steeper one', () => {
    const swept = (fallMm: number): number => {
      const radiator = part('end', 'radiator', 100, [210, 300 - fallMm, 0], { box: { min: [200, 0, -50], max: [240, 400, 50] } });
      const loop = loopOf([part('high', 'block', 20, [0, 300, 0]), radiator], [tube('down', 'high', 'end')]);
      const turned = turnNetwork(buildNetwork(loop), STANDING.upright);
      const node = (turned.network.joints.get('down.from')?.tubeNode as number) + 1;
      const pocket = { volumeMl: 5, nodes: [node], parts: [2], topMm: 300, sillMm: 290 };
      const slow = { flowLph: 20, dropKpa: 0 };
      const flows = new Map([['high', slow], ['down', slow], ['end', slow]]); // prettier-ignore
      return sweepPockets(turned, loop, [pocket], flows)[0]?.sweptMl ?? -1;
    };
    // 200 mm long: one millimetre over ten is the limit
    expect(swept(18)).toBeGreaterThan(0);
    expect(swept(24)).toBe(0);
  });

  it('carries less down when the pump turns slowly, and nothing when it stands', () => {
    expect(sweep(0.25).sweptMl).toBeLessThan(sweep(1).sweptMl);
    expect(sweep(0).sweptMl).toBe(0);
  });
});
