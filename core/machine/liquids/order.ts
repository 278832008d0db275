import { Z_ONE_SIDED_95 } from '../../base/units/physics.js';
import type { Volume } from '../loop-file/volume.js';
import type { CoolantProduct } from './classes.js';

/** Allowances on top of what the loop takes (general estimates). */
export const ORDER_ALLOWANCE = {
  /** share of the fill lost in the spout, on towels and in the bottle */
  spillShare: 0.05,
  /** mL kept as a labelled sample of the lot, for comparing colour later */
  sampleMl: 30,
} as const;

export interface CoolantOrder {
  /** what the loop is likely to take */
  readonly fillMl: number;
  /** covers 95 of 100 loops of this plan: fill + 1.645 sd + spill + sample */
  readonly orderMl: number;
  readonly bottles: number;
  readonly leftOverMl: number;
  /** for a concentrate, otherwise null */
  readonly concentrateMl: number | null;
  readonly waterMl: number | null;
}

/** Whole bottles for a first fill. A concentrate is bought as concentrate; the water is distilled water beside it. */
export function orderCoolant(fill: Volume, product: Pick<CoolantProduct, 'form' | 'targetFraction' | 'bottleMl'>): CoolantOrder {
  const orderMl = (fill.volumeMl + Z_ONE_SIDED_95 * fill.sdMl) * (1 + ORDER_ALLOWANCE.spillShare) + ORDER_ALLOWANCE.sampleMl;
  const share = product.form === 'concentrate' ? (product.targetFraction ?? 1) : 1;
  const boughtMl = orderMl * share;
  // A bottle that is short by a drop is a bottle: rounding noise must not order a second one.
  const bottles = Math.max(1, Math.ceil(boughtMl / product.bottleMl - 1e-9));
  return {
    fillMl: fill.volumeMl,
    orderMl,
    bottles,
    leftOverMl: bottles * product.bottleMl - boughtMl,
    concentrateMl: product.form === 'concentrate' ? boughtMl : null,
    waterMl: product.form === 'concentrate' ? orderMl - boughtMl : null,
  };
}
