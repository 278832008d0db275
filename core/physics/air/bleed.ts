/** When a loop counts as bled. General practice; a workshop may tighten them. */
export const BLEED_CRITERION = {
  /** cycles in a row that must agree */
  cycles: 3,
  /** mm between the running levels of those cycles; finer than a level can be read beside a moving surface */
  levelWithinMm: 1,
  /** mm that the level may still rise when the pump stops */
  riseBelowMm: 2,
} as const;

/** One stop of the pump: the level while it ran, and once the surface stood still after the stop. */
export interface BleedCycle {
  readonly runningMm: number;
  readonly stoppedMm: number;
  readonly bubbles: boolean;
  readonly noise: boolean;
}

/** What a loop lacks before it counts as bled. */
export type BleedLack =
  | { readonly why: 'bleed-cycles'; readonly count: number }
  | { readonly why: 'bleed-drift'; readonly mm: number }
  | { readonly why: 'bleed-rise'; readonly mm: number; readonly mostMm: number }
  | { readonly why: 'bleed-bubbles' }
  | { readonly why: 'bleed-noise' }
  /** nothing stood in the reservoir: no rise says anything of air */
  | { readonly why: 'bleed-empty' };

export interface BleedState {
  readonly bled: boolean;
  /** mm per cycle: what the air still inside gives back when the pump's pressure goes */
  readonly risesMm: readonly number[];
  /** empty when bled */
  readonly missing: readonly BleedLack[];
}

export const riseMm = ({ runningMm, stoppedMm }: BleedCycle): number => stoppedMm - runningMm;

/**
 * Finished when the last cycles agree, the rise is small, and nothing bubbles or grinds.
 * @param stretchMm of the rise that soft tube gives back, which is no air (handbook E)
 */
export function judgeBleed(cycles: readonly BleedCycle[], stretchMm = 0): BleedState {
  const last = cycles.slice(-BLEED_CRITERION.cycles);
  const missing: BleedLack[] = [];
  const count = BLEED_CRITERION.cycles - last.length;
  if (count > 0) missing.push({ why: 'bleed-cycles', count });
  const levels = last.map(({ runningMm }) => runningMm);
  const mm = levels.length > 1 ? Math.max(...levels) - Math.min(...levels) : 0;
  if (mm > BLEED_CRITERION.levelWithinMm) missing.push({ why: 'bleed-drift', mm });
  const latest = last.at(-1);
  const byAirMm = latest ? riseMm(latest) - stretchMm : 0;
  if (byAirMm > BLEED_CRITERION.riseBelowMm) missing.push({ why: 'bleed-rise', mm: byAirMm, mostMm: BLEED_CRITERION.riseBelowMm });
  if (latest?.bubbles) missing.push({ why: 'bleed-bubbles' });
  if (latest?.noise) missing.push({ why: 'bleed-noise' });
  if (last.some(({ runningMm, stoppedMm }) => runningMm <= 0 && stoppedMm <= 0)) missing.push({ why: 'bleed-empty' });
  return { bled: missing.length === 0, risesMm: cycles.map(riseMm), missing };
}
