import { doseConcentrate } from '../shop-sums/dose.js';
import { freezesAtC } from './freezing.js';
import type { Liquid } from './fluids.js';

export interface MixInput {
  /** what is poured now */
  readonly pourMl: number;
  /** what stands inside once the loop is full */
  readonly wholeMl: number;
  /** water that is inside already */
  readonly waterMl: number;
  /** finished coolant of the same kind that is inside already */
  readonly coolantMl: number;
  /** share of concentrate in the finished coolant */
  readonly targetFraction: number;
  /** the finished coolant */
  readonly liquid: Liquid;
}

/** One pour of a concentrate, mixed so that the whole loop ends at its strength. */
export type PourMix =
  | {
      readonly possible: true;
      readonly concentrateMl: number;
      readonly waterMl: number;
      /** share of concentrate in what is poured, and in the full loop */
      readonly pourFraction: number;
      readonly finalFraction: number;
      /** °C down to which the full loop stays liquid; null without glycol on record */
      readonly freezesC: number | null;
    }
  | { readonly possible: false; readonly drainMoreMl: number };

/** Before: `wholeMl` is more than what is inside. Source: C₁V₁ = C₂V₂ over what is inside and what is poured. */
export function mixFor({ pourMl, wholeMl, waterMl, coolantMl, targetFraction, liquid }: MixInput): PourMix {
  // coolant that is inside has its strength already: it neither needs concentrate nor gives any away
  const dose = doseConcentrate(Math.max(waterMl + 1, wholeMl - coolantMl), waterMl, targetFraction);
  if (!dose.possible || dose.pourFraction === null) return { possible: false, drainMoreMl: dose.drainMoreMl ?? 0 };
  const concentrateMl = dose.pourFraction * pourMl;
  return {
    possible: true,
    concentrateMl,
    waterMl: pourMl - concentrateMl,
    pourFraction: dose.pourFraction,
    finalFraction: targetFraction,
    freezesC: liquid.glycol === null ? null : freezesAtC(liquid),
  };
}
