import { say } from '../../base/words/say.js';
import { refuse } from '../../base/checking/input.js';

export interface RinsePlan {
  readonly rinses: number;
  /** share of old liquid after each rinse */
  readonly fractionAfter: readonly number[];
}

/** A plan of more rinses than this is a sign that the loop must be drained better, or taken apart. */
export const MOST_RINSES = 200;

/**
 * Rinses needed to dilute what a drain leaves behind: f = Π V_left/(V_left + V_rinse).
 * @param leftMl liquid that stays in the loop after each drain
 * @param rinseMl fresh water of one rinse
 * @param targetFraction share of old liquid that may remain, above 0
 * @throws InputProblem when the target would take more than `MOST_RINSES`
 */
export function planRinses(leftMl: number, rinseMl: number, targetFraction: number): RinsePlan {
  const step = leftMl / (leftMl + rinseMl);
  const fractionAfter: number[] = [];
  let fraction = 1;
  while (fraction > targetFraction) {
    if (fractionAfter.length === MOST_RINSES) {
      refuse(
        'target_fraction',
        say('would take more than {MOST_RINSES} rinses; drain more first, or rinse with more than {rinseMl} mL', { MOST_RINSES, rinseMl }),
      );
    }
    fraction *= step;
    fractionAfter.push(fraction);
  }
  return { rinses: fractionAfter.length, fractionAfter };
}
