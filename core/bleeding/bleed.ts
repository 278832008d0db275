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

export interface BleedState {
  readonly bled: boolean;
  /** mm per cycle: what the air still inside gives back when the pump's pressure goes */
  readonly risesMm: readonly number[];
  /** what is still missing, in words; empty when bled */
  readonly missing: readonly string[];
}

export const riseMm = ({ runningMm, stoppedMm }: BleedCycle): number => stoppedMm - runningMm;

/** Finished when the last cycles agree, the rise is small, and nothing bubbles or grinds. */
export function judgeBleed(cycles: readonly BleedCycle[]): BleedState {
  const last = cycles.slice(-BLEED_CRITERION.cycles);
  const risesMm = cycles.map(riseMm);
  const missing: string[] = [];
  const lacking = BLEED_CRITERION.cycles - last.length;
  if (lacking > 0) missing.push(`${lacking} more stop and start ${lacking === 1 ? 'cycle' : 'cycles'}`);
  const levels = last.map(({ runningMm }) => runningMm);
  const spread = levels.length > 1 ? Math.max(...levels) - Math.min(...levels) : 0;
  if (spread > BLEED_CRITERION.levelWithinMm) missing.push(`level still moves by ${spread.toFixed(1)} mm between cycles`);
  const latest = last.at(-1);
  if (latest && riseMm(latest) > BLEED_CRITERION.riseBelowMm)
    missing.push(`rise at stop is ${riseMm(latest).toFixed(1)} mm, it should be at most ${BLEED_CRITERION.riseBelowMm} mm`);
  if (latest?.bubbles) missing.push('bubbles at the return');
  if (latest?.noise) missing.push('the pump still sounds of air');
  return { bled: missing.length === 0, risesMm, missing };
}
