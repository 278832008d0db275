/** mm */
export interface ScrewStack {
  readonly fanMm: number;
  /** washers and gasket together */
  readonly washersMm: number;
  /** the radiator's threaded flange */
  readonly flangeMm: number;
  /** from behind the flange to the first tube or fin */
  readonly clearanceMm: number;
  /** thread that must hold */
  readonly threadMinMm: number;
}

export const SCREWS = {
  /** mm; three turns of an M3 or 6-32 screw hold a fan (handbook M) */
  threadMinMm: 3,
  /** mm kept between a screw's tip and the radiator's tubes */
  tipGapMm: 1,
} as const;

export interface ScrewChoice {
  readonly minMm: number;
  /** a longer one drives its tip into the radiator's tubes: the leak shows when the radiator is full */
  readonly maxMm: number;
  /** stock lengths that hold and do not reach the tubes, shortest first */
  readonly fits: readonly number[];
}

/** Screw lengths under the head that hold a fan on a radiator without reaching its tubes. */
export function fanScrews({ fanMm, washersMm, flangeMm, clearanceMm, threadMinMm }: ScrewStack, stockMm: readonly number[]): ScrewChoice {
  const minMm = fanMm + washersMm + threadMinMm;
  const maxMm = fanMm + washersMm + flangeMm + clearanceMm - SCREWS.tipGapMm;
  return { minMm, maxMm, fits: stockMm.filter((length) => length >= minMm && length <= maxMm).sort((a, b) => a - b) };
}
