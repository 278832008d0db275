import type { LoopComponent, LoopFile } from '../../machine/loop-file/loopFile.js';
import { GAS_BY_STAND, LEARNING, type Guess, type RadiatorStand } from './defaults.js';

/** share of a radiator's height below which its ports count as low; as much from its top, as high */
const END_SHARE = 0.25;

export function radiatorStand({ box, flow, ports }: LoopComponent): RadiatorStand {
  const heights = flow?.flatMap((port) => ports[port]?.[1] ?? []);
  if (!box || !heights || heights.length === 0) return 'unknown';
  const [x, y, z] = ([0, 1, 2] as const).map((axis) => box.max[axis] - box.min[axis]) as [number, number, number];
  if (y <= Math.min(x, z)) return 'flat';
  const share = (Math.max(...heights) - box.min[1]) / y;
  return share >= 1 - END_SHARE ? 'ports-up' : share <= END_SHARE ? 'ports-down' : 'ports-aside';
}

/** Where gas stays in a bled loop: mL of radiators by their stand, and everywhere else together. */
export type GasPlace = RadiatorStand | 'elsewhere';

/**
 * How often each place's gas counts in a loop: the radiators' mL by stand (their gas is a share of them), and one for the rest.
 * @param volumeOf mL of a radiator, before its own fills
 */
export function gasPlaces(loop: LoopFile, volumeOf: (part: LoopComponent) => number): Map<GasPlace, number> {
  const places = new Map<GasPlace, number>([['elsewhere', 1]]);
  for (const part of loop.components) {
    if (part.kind !== 'radiator') continue;
    const stand = radiatorStand(part);
    places.set(stand, (places.get(stand) ?? 0) + volumeOf(part));
  }
  return places;
}

/** What is thought of a place's gas before any fill: a share of the radiators' mL, or mL. */
export const gasGuess = (place: GasPlace): Guess => (place === 'elsewhere' ? LEARNING.gasElsewhereMl : GAS_BY_STAND[place]);

/** mL of gas that likely stays in a loop, and its variance in mL². */
export function gasThatStays(places: ReadonlyMap<GasPlace, number>): { readonly ml: number; readonly variance: number } {
  return [...places].reduce(
    ({ ml, variance }, [place, weight]) => {
      const { mean, sd } = gasGuess(place);
      return { ml: ml + weight * mean, variance: variance + (weight * sd) ** 2 };
    },
    { ml: 0, variance: LEARNING.gasSpreadMl ** 2 },
  );
}
