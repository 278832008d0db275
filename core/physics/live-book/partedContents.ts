import { WATER } from '../../machine/liquids/fluids.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { fillVolume } from '../filling/fillPlan.js';
import { twinFor } from './atMark.js';
import { DRY_ML } from './insideNow.js';
import { dryContents, filledContents, laterContents, type LoopContents } from './loopContents.js';

/** share of what both hold at their marks within which a file of two circuits counts as filled (judged: what a rough fill is off by) */
const FILLED_WITHIN = 0.2;

/**
 * What each of several circuits holds that were kept in one book: only a book that is full or dry says so for each;
 * between the two nobody knows which of them holds what.
 * @param circuits their files, parted
 */
export function partedContents(circuits: readonly LoopFile[], { insideMl }: Pick<LoopContents, 'insideMl'>): LoopContents[] {
  const volumes = circuits.map((file) => fillVolume(file));
  const atMarksMl = volumes.reduce((sum, { volumeMl }) => sum + volumeMl, 0);
  return circuits.map((file, index) => {
    if (insideMl !== null && insideMl <= DRY_ML) return dryContents(twinFor(file, WATER));
    const isFilled = insideMl !== null && Math.abs(insideMl - atMarksMl) <= FILLED_WITHIN * atMarksMl;
    if (!isFilled) return { ...dryContents(null), insideMl: null };
    return laterContents(filledContents(twinFor(file, WATER), volumes[index] ?? null));
  });
}
