import type { Random } from '../../base/random/random.js';
import type { Patches, Photo } from './colourPhoto.js';

export interface SimulatedPhoto {
  /** colours of the two liquids, linear light as shares of the card's, red green blue */
  readonly sample: readonly [number, number, number];
  readonly liquid: readonly [number, number, number];
  /** light of the lamp on the card, by channel: its white balance and strength */
  readonly lamp: readonly [number, number, number];
  /** share by which the light falls from the left edge to the right one */
  readonly falls: number;
  /** a reflection on the liquid's glass */
  readonly glare: boolean;
  /** standard deviation of a pixel, in 8-bit steps */
  readonly noise: number;
}

const SIZE = { width: 320, height: 200 } as const;
/** where the two glasses stand: the retained sample at the left, the liquid at the right */
const GLASS = { sample: [70, 120], liquid: [200, 250], top: 60, bottom: 180 } as const;

/** Places that a practised hand would touch on such a picture. */
export const SIMULATED_PATCHES: Patches = {
  sample: { x: 95, y: 130 },
  liquid: { x: 225, y: 130 },
  sampleCard: { x: 95, y: 30 },
  liquidCard: { x: 225, y: 30 },
};
export const SIMULATED_RADIUS = 10;

const toByte = (linear: number): number => {
  const share = Math.max(0, Math.min(1, linear));
  return 255 * (share <= 0.0031308 ? 12.92 * share : 1.055 * share ** (1 / 2.4) - 0.055);
};

/** A stand-in for a camera: two glasses of liquid before a white card, under a lamp. For trying it, and for tests. */
export function simulatedPhoto({ sample, liquid, lamp, falls, glare, noise }: SimulatedPhoto, random: Random): Photo {
  const { width, height } = SIZE;
  const pixels = new Uint8ClampedArray(4 * width * height);
  const isIn = (x: number, y: number, [from, to]: readonly [number, number]): boolean =>
    x >= from && x < to && y >= GLASS.top && y < GLASS.bottom;
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      const own = isIn(x, y, GLASS.sample) ? sample : isIn(x, y, GLASS.liquid) ? liquid : ([1, 1, 1] as const);
      const shines = glare && Math.hypot(x - SIMULATED_PATCHES.liquid.x, y - SIMULATED_PATCHES.liquid.y) < 4;
      const light = 1 - falls * (x / width);
      const at = 4 * (y * width + x);
      for (const channel of [0, 1, 2] as const)
        pixels[at + channel] = toByte(lamp[channel] * light * (shines ? 0.95 : own[channel])) + noise * random.normal();
      pixels[at + 3] = 255;
    }
  return { width, height, pixels };
}
