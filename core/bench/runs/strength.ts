import { ledgerOf } from './contents.js';
import type { Procedure } from './procedure.js';
import { broughtMl, pouredMl, type RunState } from './state.js';

/** What the coolant inside comes to once water of rinses and tested parts has thinned it. */
export interface Strength {
  /** share of the strength that is poured, by the book; 1: nothing thinned it, or a concentrate was dosed for it */
  readonly ofFull: number;
  /** volume share of concentrate in the loop, where the product says what it is mixed to */
  readonly concentrate: number | null;
  /** mL of water that was inside before the fill and counts */
  readonly waterMl: number;
  /** share of full strength that the product's sheet asks for at least; null where it states none */
  readonly least: number | null;
}

/** null where nothing was filled, or nobody knows what is inside. Source: C₁V₁ = C₂V₂ over what is inside. */
export function strengthOf(procedure: Procedure, state: RunState): Strength | null {
  const { coolant } = state;
  if (!coolant || state.pours.length === 0) return null;
  const { product } = coolant;
  const shares = sharesInside(procedure, state);
  if (!shares) return null;
  const { coolantShare, waterMl } = shares;
  const dosed = product?.form === 'concentrate';
  const ofFull = dosed ? 1 : coolantShare;
  const target = product?.targetFraction ?? null;
  return { ofFull, concentrate: target === null ? null : ofFull * target, waterMl, least: dosed ? null : (product?.leastFraction ?? null) };
}

function sharesInside(procedure: Procedure, state: RunState): { coolantShare: number; waterMl: number } | null {
  const { service } = procedure;
  if (!service) {
    const water = broughtMl(state);
    const poured = pouredMl(state);
    return { coolantShare: poured / (poured + water), waterMl: water };
  }
  const { insideMl, shares } = ledgerOf(service, state);
  return insideMl === null ? null : { coolantShare: shares.coolant + shares.old, waterMl: Math.max(0, insideMl) * shares.water };
}

export const isTooWeak = ({ ofFull, least }: Strength): boolean => least !== null && ofFull < least;
