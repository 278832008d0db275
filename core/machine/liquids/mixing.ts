import { say } from '../../base/words/say.js';
import { FLUSH } from './rinsing.js';
import type { Glycol } from './fluids.js';
import type { CoolantClass } from './classes.js';

/** What decides whether two coolants may meet. */
export interface Miscible {
  readonly productId: string;
  readonly name: string;
  readonly coolantClass: CoolantClass;
  readonly glycol: Glycol | null;
  /** inhibitor package as the sheet names it; empty: not known */
  readonly inhibitor: string;
}

export type MixVerdict = 'fine' | 'rinse-between' | 'never';

export interface Mix {
  readonly productId: string;
  readonly verdict: MixVerdict;
  readonly reason: string;
  /** share of the old liquid up to which the new one may go in */
  readonly mostOldFraction: number;
}

const SUSPENSION: readonly CoolantClass[] = ['show', 'opaque'];
const limit: Record<MixVerdict, number> = { fine: 1, 'rinse-between': FLUSH.targetOldFraction, never: FLUSH.targetNeverFraction };

/**
 * Whether `after` may be poured onto rests of `before`. Same product, or same base and same inhibitor package: fine.
 * Suspensions with anything else: never, particles fall out where their charge is disturbed. Unknown: as a suspension. All else: rinse between.
 */
export function mayMix(before: Miscible | null, after: Miscible): Mix {
  const told = (verdict: MixVerdict, reason: string): Mix => ({
    productId: after.productId,
    verdict,
    reason,
    mostOldFraction: limit[verdict],
  });
  if (!before) return told('never', say('nobody knows what is in the loop: it may carry particles, or fall out with anything'));
  if (before.productId === after.productId) return told('fine', say('the same product'));
  const suspension = [before, after].find(({ coolantClass }) => SUSPENSION.includes(coolantClass));
  if (suspension)
    return told('never', say('{name} carries particles: with another coolant they fall out and choke the fins', { name: suspension.name }));
  if (before.glycol !== after.glycol) return told('rinse-between', say('their bases differ'));
  if (before.inhibitor === '' || before.inhibitor !== after.inhibitor)
    return told('rinse-between', say('their inhibitor packages differ or are not known'));
  return before.coolantClass === after.coolantClass
    ? told('fine', say('the same base and the same inhibitor package'))
    : told('rinse-between', say('they are of different classes'));
}

/** Cleaners and household chemicals that must never meet. Said at the soak, whatever the bottle is called. */
export const NEVER_TOGETHER = 'Acid cleaner never with bleach or anything with chlorine: the gas is poisonous.';
