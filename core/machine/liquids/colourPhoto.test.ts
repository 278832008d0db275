import { describe, expect, it } from 'vitest';
import { often } from '../../../tests/often.js';
import { seededRandom } from '../../base/random/random.js';
import { colourDifference } from './colourDifference.js';
import { findCard, labOf, readColour, type Photo } from './colourPhoto.js';
import { SIMULATED_PATCHES, SIMULATED_RADIUS, simulatedPhoto, type SimulatedPhoto } from './simulatedPhoto.js';

const plain: SimulatedPhoto = {
  sample: [0.1, 0.3, 0.55],
  liquid: [0.1, 0.3, 0.55],
  lamp: [0.8, 0.8, 0.8],
  falls: 0,
  glare: false,
  noise: 0,
};
const photo = (more: Partial<SimulatedPhoto> = {}): Photo => simulatedPhoto({ ...plain, ...more }, seededRandom(4));
const read = (of: Photo) => readColour(of, SIMULATED_PATCHES, SIMULATED_RADIUS);
const whyOf = (of: Photo): string[] => read(of).refusals.map(({ why }) => why);

describe('CIE L*a*b* of linear sRGB', () => {
  it.each([
    ['white', [1, 1, 1], { L: 100, a: 0, b: 0 }],
    ['black', [0, 0, 0], { L: 0, a: 0, b: 0 }],
    // published values of the sRGB primaries under D65
    ['red', [1, 0, 0], { L: 53.24, a: 80.09, b: 67.2 }],
    ['green', [0, 1, 0], { L: 87.73, a: -86.18, b: 83.18 }],
    ['blue', [0, 0, 1], { L: 32.3, a: 79.19, b: -107.86 }],
  ] as const)('%s', (_, rgb, lab) => {
    const got = labOf(rgb);
    for (const key of ['L', 'a', 'b'] as const) expect(Math.abs(got[key] - lab[key]), key).toBeLessThan(0.02);
  });
});

describe('sample and liquid on one photograph', () => {
  it('are the same where they are, whatever the lamp', () => {
    for (const lamp of [
      [0.8, 0.8, 0.8],
      [0.85, 0.6, 0.3],
      [0.35, 0.4, 0.6],
    ] as const) {
      const { reading } = read(photo({ lamp }));
      // eight bits a channel are all that is left of it
      expect(reading?.deltaE).toBeLessThan(0.3);
      expect(Math.abs((reading?.sample.b ?? 0) - labOf(plain.sample).b)).toBeLessThan(1.5);
    }
  });

  it('differ by what their colours differ, with an error that holds it', () => {
    const liquid = [0.16, 0.31, 0.42] as const;
    const truth = colourDifference(labOf(plain.sample), labOf(liquid));
    expect(truth).toBeGreaterThan(5);
    let held = 0;
    const times = often(45);
    const random = seededRandom(9);
    for (let n = 0; n < times; n += 1) {
      const lamp = [random.between(0.4, 0.85), random.between(0.4, 0.85), random.between(0.3, 0.85)] as const;
      const { reading } = read(simulatedPhoto({ ...plain, liquid, lamp, falls: random.between(0, 0.15), noise: 3 }, random));
      if (reading && Math.abs(reading.deltaE - truth) <= 2 * reading.sd + 0.3) held += 1;
    }
    expect(held / times).toBeGreaterThan(0.9);
  });

  it('are not compared where the picture cannot tell, with the reason', () => {
    expect(whyOf(photo({ lamp: [1.2, 1.2, 1.2] }))).toEqual(['clipped', 'clipped']);
    expect(whyOf(photo({ glare: true }))).toEqual(['glare']);
    expect(whyOf(photo({ lamp: [0.05, 0.05, 0.05] }))).toEqual(['dark-card', 'dark-card']);
    const uneven = read(photo({ falls: 0.5 }));
    expect(uneven.refusals).toEqual([{ why: 'uneven-card', percent: expect.closeTo(27, -1) }]);
    // a touch on the glass's edge, on the other liquid, on no card at all
    const edge = { ...SIMULATED_PATCHES, liquid: { x: 200, y: 130 } };
    expect(readColour(photo(), edge, SIMULATED_RADIUS).refusals).toEqual([{ why: 'mixed', patch: 'liquid' }]);
    const near = { ...SIMULATED_PATCHES, liquid: { x: 100, y: 130 } };
    expect(readColour(photo(), near, SIMULATED_RADIUS).refusals).toEqual([{ why: 'same-place' }]);
    const noCard = { ...SIMULATED_PATCHES, sampleCard: { x: 95, y: 160 } };
    expect(readColour(photo(), noCard, SIMULATED_RADIUS).refusals[0]).toEqual({ why: 'not-a-card', patch: 'sampleCard' });
    const off = { ...SIMULATED_PATCHES, liquid: { x: 318, y: 130 } };
    expect(readColour(photo(), off, SIMULATED_RADIUS)).toEqual({ reading: null, refusals: [{ why: 'off-edge', patch: 'liquid' }] });
  });

  it('find the card beside them by themselves', () => {
    const own = photo({ lamp: [0.85, 0.6, 0.3], falls: 0.08, noise: 2 });
    const found = {
      ...SIMULATED_PATCHES,
      sampleCard: findCard(own, SIMULATED_PATCHES.sample, SIMULATED_RADIUS),
      liquidCard: findCard(own, SIMULATED_PATCHES.liquid, SIMULATED_RADIUS),
    };
    expect(readColour(own, found, SIMULATED_RADIUS).reading?.deltaE).toBeLessThan(1.5);
  });
});
