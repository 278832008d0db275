import { often } from '../../../tests/often.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { generateSpatialLoop } from '../../machine/loop-file/generatedLoops.js';
import { STANDING } from '../../machine/loop-file/orientation.js';
import { fullContents, totalMl } from '../contents/contents.js';
import { buildNetwork } from '../geometry/network.js';
import { turnNetwork } from '../geometry/turned.js';
import { openablePorts, openUp } from './openings.js';
import { partlyOut } from './partlyOut.js';
import { runOut } from './runOut.js';

const drainedLoop = (seed: number) => {
  const loop = generateSpatialLoop(seed);
  const network = buildNetwork(loop);
  const turned = turnNetwork(network, STANDING.upright);
  const ports = openablePorts(loop);
  const before = fullContents(network);
  const { left, drainedMl } = runOut(turned, openUp(network, { open: ports.slice(1), drains: ports.slice(0, 1), closed: [] }), before);
  return { turned, before, left, drainedMl };
};

describe('a drain that was shut before all had come', () => {
  it('leaves as much less as came, no node less than at the end nor more than at the beginning and what settled', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), fc.double({ min: 0, max: 1, noNaN: true }), (seed, share) => {
        const { turned, before, left, drainedMl } = drainedLoop(seed);
        const now = partlyOut(turned, before, left, share * drainedMl);
        expect(totalMl(before) - totalMl(now)).toBeCloseTo(share * drainedMl, 6);
        now.forEach((ml, node) => {
          expect(ml).toBeGreaterThanOrEqual(Math.min(before[node] as number, left[node] as number) - 1e-6);
          expect(ml).toBeLessThanOrEqual(Math.max(before[node] as number, left[node] as number) + 1e-6);
        });
      }),
      { numRuns: often(100) },
    );
  });

  it('has emptied what stands high before what stands low', () => {
    const { turned, before, left, drainedMl } = drainedLoop(8);
    const now = partlyOut(turned, before, left, drainedMl / 2);
    const { heightMm, network } = turned;
    const plain = [...before.keys()].filter(
      (node) => (network.vesselOf[node] as number) < 0 && (before[node] as number) - (left[node] as number) > 0.01,
    );
    const gone = plain.filter((node) => (now[node] as number) <= (left[node] as number) + 1e-9).map((node) => heightMm[node] as number);
    const kept = plain.filter((node) => (now[node] as number) >= (before[node] as number) - 1e-9).map((node) => heightMm[node] as number);
    expect(gone.length).toBeGreaterThan(0);
    expect(kept.length).toBeGreaterThan(0);
    expect(Math.min(...gone)).toBeGreaterThanOrEqual(Math.max(...kept) - 1e-9);
  });
});
