import { colourDifference, type Lab } from './colourDifference.js';

/**
 * Retained sample and liquid on one photograph, both before the same white card: two patches, each scaled by the card beside it, so that
 * neither the lamp nor the camera's white balance counts. Pixels are 8-bit sRGB; lengths are pixels.
 */
export interface Photo {
  readonly width: number;
  readonly height: number;
  /** red, green, blue, alpha, row by row */
  readonly pixels: Uint8ClampedArray;
}

export interface Place {
  readonly x: number;
  readonly y: number;
}

/** What is looked at: the two liquids, and the card beside each. */
export const PATCHES = ['sample', 'liquid', 'sampleCard', 'liquidCard'] as const;
export type Patch = (typeof PATCHES)[number];
export type Patches = Readonly<Record<Patch, Place>>;

export const PHOTO_LIMITS = {
  /** a channel from here on is at its end: its true value is not known */
  clippedFrom: 252,
  /** share of a patch's pixels that may be clipped */
  clippedShare: 0.01,
  /** linear light of a card that is too dark to scale by */
  darkCard: 0.12,
  /** a pixel so many times brighter than its patch's middle is a reflection; share that may be */
  glareTimes: 1.6,
  glareShare: 0.02,
  /** relative spread (interquartile range ÷ median) of a patch that is one colour */
  spread: 0.25,
  /** the card may differ so much between the two places, and within one (handbook L) */
  unevenShare: 0.1,
  /** the card is brighter than what it is beside at least so many times */
  cardTimes: 1.05,
} as const;

/** Why a photograph says nothing, and of which patch. */
export type PhotoRefusal =
  | { readonly why: 'clipped' | 'glare' | 'mixed' | 'off-edge'; readonly patch: Patch }
  | { readonly why: 'dark-card' | 'not-a-card'; readonly patch: Patch }
  | { readonly why: 'uneven-card'; readonly percent: number }
  | { readonly why: 'same-place' };

export interface ColourReading {
  readonly deltaE: number;
  /** one standard deviation: of the patches themselves, and of what the light differs between the two places */
  readonly sd: number;
  readonly sample: Lab;
  readonly liquid: Lab;
}

export type PhotoAnswer = { readonly reading: ColourReading; readonly refusals: readonly [] } | { readonly reading: null; readonly refusals: readonly PhotoRefusal[] }; // prettier-ignore

type Linear = readonly [number, number, number];

/** IEC 61966-2-1 */
const LINEAR = Float64Array.from({ length: 256 }, (_, byte) => {
  const share = byte / 255;
  return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
});
/** luminance of linear sRGB */
const lightOf = ([r, g, b]: Linear): number => 0.2126 * r + 0.7152 * g + 0.0722 * b;

/** sRGB of 0 to 1, linear, to CIE L*a*b* for D65: white is [1, 1, 1]. */
export function labOf([r, g, b]: Linear): Lab {
  const f = (share: number): number => (share > 216 / 24_389 ? Math.cbrt(share) : ((24_389 / 27) * share + 16) / 116);
  // each row of the sRGB matrix divided by its sum, so that white is white to the last digit
  const x = f((0.4124564 * r + 0.3575761 * g + 0.1804375 * b) / 0.95047);
  const y = f((0.2126729 * r + 0.7151522 * g + 0.072175 * b) / 1.0000001);
  const z = f((0.0193339 * r + 0.119192 * g + 0.9503041 * b) / 1.08883);
  return { L: 116 * y - 16, a: 500 * (x - y), b: 200 * (y - z) };
}

interface Seen {
  readonly mean: Linear;
  readonly light: number;
  /** means of its four quarters */
  readonly quarters: readonly Linear[];
  readonly clipped: number;
  readonly glare: number;
  readonly spread: number;
}

const meanOf = (all: readonly Linear[]): Linear => {
  const sum = all.reduce<[number, number, number]>((so, [r, g, b]) => [so[0] + r, so[1] + g, so[2] + b], [0, 0, 0]);
  return [sum[0] / all.length, sum[1] / all.length, sum[2] / all.length];
};

const isInside = ({ width, height }: Photo, { x, y }: Place, radius: number): boolean =>
  x - radius >= 0 && y - radius >= 0 && x + radius < width && y + radius < height;

/** A round patch as it stands in the picture. */
function look({ width, pixels }: Photo, place: Place, radius: number): Seen {
  const quarters: Linear[][] = [[], [], [], []];
  const lights: number[] = [];
  let clipped = 0;
  const [cx, cy] = [Math.round(place.x), Math.round(place.y)];
  for (let dy = -radius; dy <= radius; dy += 1)
    for (let dx = -radius; dx <= radius; dx += 1) {
      if (dx * dx + dy * dy > radius * radius) continue;
      const at = 4 * ((cy + dy) * width + cx + dx);
      const [r, g, b] = [pixels[at] as number, pixels[at + 1] as number, pixels[at + 2] as number];
      if (Math.max(r, g, b) >= PHOTO_LIMITS.clippedFrom) clipped += 1;
      const linear: Linear = [LINEAR[r] as number, LINEAR[g] as number, LINEAR[b] as number];
      quarters[(dx < 0 ? 0 : 1) + (dy < 0 ? 0 : 2)]?.push(linear);
      lights.push(lightOf(linear));
    }
  lights.sort((a, b) => a - b);
  const at = (share: number): number => lights[Math.min(lights.length - 1, Math.floor(share * lights.length))] as number;
  const middle = Math.max(1e-6, at(0.5));
  const mean = meanOf(quarters.flat());
  return {
    mean,
    light: lightOf(mean),
    quarters: quarters.map(meanOf),
    clipped: clipped / lights.length,
    glare: lights.filter((light) => light > PHOTO_LIMITS.glareTimes * middle).length / lights.length,
    spread: (at(0.75) - at(0.25)) / middle,
  };
}

const scaled = (mean: Linear, card: Linear): Linear => [mean[0] / card[0], mean[1] / card[1], mean[2] / card[2]];

function faultOf(patch: Patch, seen: Seen): PhotoRefusal[] {
  const { clippedShare, glareShare, spread, darkCard } = PHOTO_LIMITS;
  if (seen.clipped > clippedShare) return [{ why: 'clipped', patch }];
  if (seen.spread > spread) return [{ why: 'mixed', patch }];
  if (seen.glare > glareShare) return [{ why: 'glare', patch }];
  return patch.endsWith('Card') && seen.light < darkCard ? [{ why: 'dark-card', patch }] : [];
}

/**
 * Compares the liquid with the retained sample.
 * @param radius of each patch
 * @returns the difference with its error, or every reason why this photograph says nothing
 */
export function readColour(photo: Photo, patches: Patches, radius: number): PhotoAnswer {
  const off = PATCHES.filter((patch) => !isInside(photo, patches[patch], radius));
  if (off.length > 0) return { reading: null, refusals: off.map((patch) => ({ why: 'off-edge', patch })) };
  const seen = Object.fromEntries(PATCHES.map((patch) => [patch, look(photo, patches[patch], radius)])) as Record<Patch, Seen>;
  const { sample, liquid, sampleCard, liquidCard } = seen;
  const uneven = Math.abs(sampleCard.light - liquidCard.light) / Math.max(1e-6, (sampleCard.light + liquidCard.light) / 2);
  const apart = Math.hypot(patches.sample.x - patches.liquid.x, patches.sample.y - patches.liquid.y);
  const refusals: PhotoRefusal[] = [
    ...(apart < 2 * radius ? [{ why: 'same-place' as const }] : []),
    ...PATCHES.flatMap((patch) => faultOf(patch, seen[patch])),
    ...([['sampleCard', sample, sampleCard], ['liquidCard', liquid, liquidCard]] as const).flatMap(([patch, own, card]) =>
      card.light < PHOTO_LIMITS.cardTimes * own.light ? [{ why: 'not-a-card' as const, patch }] : []), // prettier-ignore
    ...(uneven > PHOTO_LIMITS.unevenShare ? [{ why: 'uneven-card' as const, percent: Math.round(100 * uneven) }] : []),
  ];
  if (refusals.length > 0) return { reading: null, refusals };
  const [one, other] = [labOf(scaled(sample.mean, sampleCard.mean)), labOf(scaled(liquid.mean, liquidCard.mean))];
  const deltaE = colourDifference(one, other);
  // each patch by its own quarters, and both by the card of the other place
  const pairs = sample.quarters.map((quarter, index) =>
    colourDifference(labOf(scaled(quarter, sampleCard.mean)), labOf(scaled(liquid.quarters[index] as Linear, liquidCard.mean))),
  );
  const mean = pairs.reduce((sum, each) => sum + each, 0) / pairs.length;
  const own = Math.sqrt(pairs.reduce((sum, each) => sum + (each - mean) ** 2, 0) / (pairs.length - 1) / pairs.length);
  const swapped = colourDifference(labOf(scaled(sample.mean, liquidCard.mean)), labOf(scaled(liquid.mean, sampleCard.mean)));
  return { reading: { deltaE, sd: Math.hypot(own, (swapped - deltaE) / 2), sample: one, liquid: other }, refusals: [] };
}

/** radii of the patch that the search for its card goes out to, and the step of it */
const SEARCH = { from: 2.2, to: 9, step: 0.75 } as const;

/** Where the white card probably is beside a liquid: the brightest even place near it. */
export function findCard(photo: Photo, beside: Place, radius: number): Place {
  let best: { place: Place; light: number } | null = null;
  for (let dy = -SEARCH.to; dy <= SEARCH.to; dy += SEARCH.step)
    for (let dx = -SEARCH.to; dx <= SEARCH.to; dx += SEARCH.step) {
      const place = { x: Math.round(beside.x + dx * radius), y: Math.round(beside.y + dy * radius) };
      if (Math.hypot(dx, dy) < SEARCH.from || !isInside(photo, place, radius)) continue;
      const seen = look(photo, place, Math.max(2, radius >> 1));
      const isEven = seen.spread < PHOTO_LIMITS.unevenShare && seen.clipped <= PHOTO_LIMITS.clippedShare && seen.glare === 0;
      if (isEven && (!best || seen.light > best.light)) best = { place, light: seen.light };
    }
  return best?.place ?? { x: beside.x, y: Math.max(radius, beside.y - SEARCH.from * radius) };
}
