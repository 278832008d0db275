/** What to pour so that the whole loop reaches a strength, counting the water that a rinse left behind. */
export interface Dose {
  readonly concentrateMl: number;
  readonly waterMl: number;
  /** strength of the liquid to pour; null where nothing can be poured */
  readonly pourFraction: number | null;
  readonly possible: boolean;
  /** how much more must come out first; null when possible */
  readonly drainMoreMl: number | null;
}

/**
 * Concentrate c·V for target fraction c in loop volume V; the poured liquid has strength c·V/(V − V_left), at most 1.
 * @param loopMl whole loop volume
 * @param leftMl water already inside, at most `loopMl`
 */
export function doseConcentrate(loopMl: number, leftMl: number, targetFraction: number): Dose {
  const concentrateMl = targetFraction * loopMl;
  const pourMl = loopMl - leftMl;
  const possible = concentrateMl <= pourMl * (1 + 1e-12);
  const pourFraction = pourMl > 0 ? concentrateMl / pourMl : concentrateMl === 0 ? 0 : null;
  return {
    concentrateMl,
    waterMl: Math.max(0, pourMl - concentrateMl),
    pourFraction: possible && pourFraction !== null ? Math.min(1, pourFraction) : pourFraction,
    possible,
    drainMoreMl: possible ? null : leftMl - (1 - targetFraction) * loopMl,
  };
}

export interface ReadyMixStrength {
  readonly finalFraction: number;
  readonly enough: boolean;
}

/** Ready-mix of strength S poured onto V_left of water: S·(V − V_left)/V, against the sheet's minimum. */
export function diluteReadyMix(loopMl: number, leftMl: number, readyMixFraction: number, sheetMinimum: number): ReadyMixStrength {
  const finalFraction = (readyMixFraction * (loopMl - leftMl)) / loopMl;
  return { finalFraction, enough: finalFraction >= sheetMinimum };
}
