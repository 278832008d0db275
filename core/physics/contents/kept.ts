import type { Volume } from '../../machine/loop-file/volume.js';
import { twinLeftSdMl } from './ledger.js';

/** What a loop keeps once its next drain is over. */
export interface Kept extends Volume {
  /** drains of this very loop that it was learned from; 0: the twin's figure alone */
  readonly drains: number;
}

/** share of what stays by which one drain of a loop differs from the next: tilt, time, a hand that shakes it (estimate) */
const DRAIN_SPREAD = 0.15;

/**
 * What this loop keeps, by the twin's figure and by what its own drains left, each weighed by its error (linear-Gaussian).
 * @param predictedMl the twin's; null: it cannot tell, then the drains alone say
 * @param left what each drain left, by the book; below nothing where more came than was thought to be in
 * @returns null where nobody can tell
 */
export function keptAfterDrains(predictedMl: number | null, left: readonly Volume[]): Kept | null {
  const told = [
    ...(predictedMl === null ? [] : [{ volumeMl: predictedMl, sdMl: twinLeftSdMl(predictedMl) }]),
    ...left.map(({ volumeMl, sdMl }) => ({ volumeMl, sdMl: Math.hypot(sdMl, DRAIN_SPREAD * Math.abs(volumeMl), 1) })),
  ];
  if (told.length === 0) return null;
  const weight = told.reduce((sum, { sdMl }) => sum + 1 / sdMl ** 2, 0);
  const mean = told.reduce((sum, { volumeMl, sdMl }) => sum + volumeMl / sdMl ** 2, 0) / weight;
  // the next drain differs from the mean of all as any does
  const spreadMl = left.length > 0 ? DRAIN_SPREAD * Math.abs(mean) : 0;
  return { volumeMl: Math.max(0, mean), sdMl: Math.hypot(1 / Math.sqrt(weight), spreadMl), drains: left.length };
}
