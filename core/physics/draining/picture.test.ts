import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { fullContents } from '../contents/contents.js';
import { shareBelow, type TurnedBox } from '../geometry/levelCut.js';
import { buildNetwork } from '../geometry/network.js';
import { STANDING, STANDING_NAMES } from '../../machine/loop-file/orientation.js';
import { turnNetwork, type TurnedNetwork } from '../geometry/turned.js';
import { allPorts, generateSpatialLoop } from '../../machine/loop-file/generatedLoops.js';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import { drainTurned } from './drain.js';
import { openUp } from './openings.js';
import { pictureOfContents, pictureOfDrain, type Fate, type LiquidPicture } from './picture.js';
import { runOut } from './runOut.js';
import { often } from '../../../tests/often.js';

const example = readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));

/** mL that a picture shows in one fate. */
function drawnMl(turned: TurnedNetwork, { fates, vessels }: LiquidPicture, fate: Fate): number {
  const { network, boxes } = turned;
  let ml = 0;
  for (let node = 0; node < network.size; node += 1) {
    const vessel = network.vesselOf[node] as number;
    const whole = network.volumeMl[node] as number;
    if (vessel < 0) ml += fates[node] === fate ? whole : 0;
    else {
      for (const band of vessels.get(network.part[node] as number) ?? []) {
        const box = boxes[vessel] as TurnedBox;
        if (band.fate === fate) ml += whole * (shareBelow(box, band.toMm) - shareBelow(box, band.fromMm));
      }
    }
  }
  return ml;
}

const situation = fc.record({ seed: fc.nat(50_000), standing: fc.constantFrom(...STANDING_NAMES), drain: fc.nat(), air: fc.nat() });

describe('the picture of a drain', () => {
  it('shows exactly the millilitres of the split, fate by fate', () => {
    fc.assert(
      fc.property(situation, ({ seed, standing, drain, air }) => {
        const loop = generateSpatialLoop(seed);
        const ports = allPorts(loop);
        const turned = turnNetwork(buildNetwork(loop), STANDING[standing]);
        const setup = { open: [ports[air % ports.length] as string], drains: [ports[drain % ports.length] as string], closed: [] };
        const result = drainTurned(turned, setup);
        const picture = pictureOfDrain(turned, setup);
        expect(drawnMl(turned, picture, 'gas')).toBeCloseTo(result.drainedMl, 4);
        expect(drawnMl(turned, picture, 'held')).toBeCloseTo(result.heldMl, 4);
        expect(drawnMl(turned, picture, 'high')).toBeCloseTo(result.trappedHighMl, 4);
        expect(drawnMl(turned, picture, 'low')).toBeCloseTo(result.trappedLowMl, 4);
      }),
      { numRuns: often(150) },
    );
  });

  it('stacks a vessel’s bands without gap from its bottom to its top', () => {
    const turned = turnNetwork(buildNetwork(example), STANDING.upright);
    const { vessels } = pictureOfDrain(turned, { open: ['top.vent'], drains: ['gpu.low'], closed: [] });
    for (const [part, bands] of vessels) {
      const vessel = turned.network.vessels.findIndex((each) => each.part === part);
      const box = turned.boxes[vessel] as TurnedBox;
      expect(bands[0]?.fromMm).toBe(box.bottomMm);
      expect(bands.at(-1)?.toMm).toBe(box.topMm);
      bands.slice(1).forEach((band, index) => expect(band.fromMm).toBe(bands[index]?.toMm));
    }
  });
});

describe('the picture of what is in a loop', () => {
  const network = buildNetwork(example);
  const upright = turnNetwork(network, STANDING.upright);

  it('is all liquid when full and all gas when empty', () => {
    const whole = network.volumeMl.reduce((sum, ml) => sum + ml, 0);
    expect(drawnMl(upright, pictureOfContents(upright, fullContents(network)), 'liquid')).toBeCloseTo(whole, 6);
    expect(drawnMl(upright, pictureOfContents(upright, new Float64Array(network.size)), 'gas')).toBeCloseTo(whole, 6);
  });

  it('lays what is left in a vessel at its low side, however it is turned', () => {
    const { left } = runOut(upright, openUp(network, { open: ['top.vent'], drains: ['gpu.low'], closed: [] }), fullContents(network));
    const front = example.components.findIndex(({ id }) => id === 'front');
    for (const standing of STANDING_NAMES) {
      const turned = turnNetwork(network, STANDING[standing]);
      const [lowest] = pictureOfContents(turned, left).vessels.get(front) ?? [];
      const hub = network.vessels.find(({ part }) => part === front)?.node as number;
      const box = turned.boxes[network.vesselOf[hub] as number] as TurnedBox;
      expect(lowest).toMatchObject({ fate: 'liquid', fromMm: box.bottomMm });
      expect((network.volumeMl[hub] as number) * shareBelow(box, lowest?.toMm as number)).toBeCloseTo(left[hub] as number, 3);
    }
  });
});
