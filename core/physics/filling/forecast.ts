import type { FillSimulation } from './fillSimulation.js';

/** How a fill likely ends, from what is inside now: mL in the loop with its reservoir at the mark. */
export interface FillForecast {
  readonly insideMl: number;
  readonly likelyMl: number;
  /** all gas that may stay did stay */
  readonly leastMl: number;
  /** none did */
  readonly mostMl: number;
  /** mL still to pour, likely */
  readonly toGoMl: number;
}

export function forecastOf(
  { totalMl, leastMl, mostMl }: Pick<FillSimulation, 'totalMl' | 'leastMl' | 'mostMl'>,
  insideMl: number,
): FillForecast {
  const likelyMl = insideMl + totalMl;
  return {
    insideMl,
    likelyMl,
    leastMl: Math.max(insideMl, insideMl + leastMl),
    mostMl: Math.max(likelyMl, mostMl),
    toGoMl: totalMl,
  };
}
