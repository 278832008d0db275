import { say } from '../../base/words/say.js';
import { AGREES_WITHIN_SD } from '../measuring/errors.js';
import { formatMl } from '../../base/units/display.js';
import type { Volume } from '../../machine/loop-file/volume.js';

/** A simulated pulse, as far as watching needs it. */
export interface PlannedPulse {
  readonly runS: number;
  readonly refillMl: number;
  /** poured while the pump runs: between such pulses all of it would fall back */
  readonly pouredRunning: boolean;
  /** share of full speed that the pump is set to before it; missing: as it is set */
  readonly speed?: number;
}

export interface FillWatchInput {
  /** what stands in the loop before the first pulse */
  readonly passiveMl: number;
  readonly pulses: readonly PlannedPulse[];
  /** likely to be poured in all, gas that stays left out */
  readonly totalMl: number;
  /** what the loop can hold up to the fill mark, with its standard deviation */
  readonly holds: Volume;
  /** mL, one entry for each pour */
  readonly pours: readonly number[];
  /** mL that parts brought with them */
  readonly broughtMl: number;
  /** the level stays at the mark and liquid comes back: nothing more goes in */
  readonly levelStays: boolean;
}

export interface WatchedPour {
  readonly pouredMl: number;
  /** null beyond the plan */
  readonly plannedMl: number | null;
}

export interface FillWatch {
  readonly pouredMl: number;
  /** pour by pour, measured beside planned */
  readonly rows: readonly WatchedPour[];
  /** at most this much now: a pour above it may overflow when the column falls back */
  readonly nextAtMostMl: number;
  /** s until the low mark or the return; null before the first pour and once all pulses are over */
  readonly nextRunS: number | null;
  /** share of full speed for it; null: as the pump is set */
  readonly nextSpeed: number | null;
  readonly pulsesLeft: number;
  /** to be poured with the pump running, in one go, until the return is reached; null where pulses do */
  readonly whileRunningMl: number | null;
  /** what cannot be explained by the volumes' uncertainty */
  readonly mismatch: { readonly ml: number; readonly words: string } | null;
}

/**
 * Pours against the simulated fill. The pulse the loop stands at follows from what is inside, not from the count of
 * pours: who pours twice in a pulse is not further along.
 */
export function watchFill(input: FillWatchInput): FillWatch {
  const { passiveMl, pulses, totalMl, holds, pours, broughtMl, levelStays } = input;
  const planned = [Math.max(0, passiveMl - broughtMl), ...pulses.map(({ refillMl }) => refillMl)];
  const pouredMl = pours.reduce((sum, ml) => sum + ml, 0);
  const insideMl = pouredMl + broughtMl;
  // standing before pulse k: what is inside reaches the plan up to there, short of half its refill
  let stage = 0;
  let reachMl = 0;
  for (const ml of planned) {
    if (pouredMl < reachMl + ml / 2) break;
    reachMl += ml;
    stage += 1;
  }
  const missingMl = reachMl + (planned[stage] ?? 0) - pouredMl;
  const roomMl = holds.volumeMl + AGREES_WITHIN_SD * holds.sdMl - insideMl;
  const pulse = stage > 0 ? pulses[stage - 1] : undefined;
  return {
    pouredMl,
    rows: pours.map((ml, index) => ({ pouredMl: ml, plannedMl: planned[index] ?? null })),
    nextAtMostMl: Math.max(0, Math.min(planned[stage] ?? 0, missingMl, roomMl)),
    nextRunS: pulse?.runS ?? null,
    nextSpeed: pulse?.speed ?? null,
    whileRunningMl: stage > 0 ? whileRunning(pulses.slice(stage - 1)) : null,
    pulsesLeft: Math.max(0, planned.length - Math.max(1, stage)),
    mismatch: levelStays && pours.length > 0 ? tooLittle(insideMl, totalMl, holds) ?? tooMuch(insideMl, holds) : tooMuch(insideMl, holds), // prettier-ignore
  };
}

/** Refills of the pulses that hang together because nothing may fall back between them. */
function whileRunning(pulses: readonly PlannedPulse[]): number | null {
  const last = pulses.findIndex(({ pouredRunning }) => !pouredRunning);
  if (last === 0 || pulses.length === 0) return null;
  // the pulse that reaches the return ends it: its refill is poured once liquid goes round
  return pulses.slice(0, last < 0 ? pulses.length : last).reduce((sum, { refillMl }) => sum + refillMl, 0);
}

function tooMuch(insideMl: number, { volumeMl, sdMl }: Volume): FillWatch['mismatch'] {
  const ml = insideMl - volumeMl;
  if (ml <= AGREES_WITHIN_SD * sdMl) return null;
  return {
    ml,
    words: say('{formatMl} more than the loop can hold: look for a leak, or for a larger radiator than planned', {
      formatMl: formatMl(ml),
    }),
  };
}

function tooLittle(insideMl: number, totalMl: number, { sdMl }: Volume): FillWatch['mismatch'] {
  const ml = totalMl - insideMl;
  if (ml <= AGREES_WITHIN_SD * sdMl) return null;
  return {
    ml: -ml,
    words: say('{formatMl} less than expected although nothing more goes in: air is trapped, or a radiator is smaller than planned', {
      formatMl: formatMl(ml),
    }),
  };
}
