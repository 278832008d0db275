/**
 * Coolant classes and how long each may stay in a loop.
 * Base lives are general estimates at a mean coolant temperature of 35 °C; a product's own sheet goes before them.
 */
export const COOLANT_CLASSES = {
  show: {
    label: 'show (pearl, metallic)',
    baseLifeMonths: 0,
    baseLifeRunningHours: 8,
    why: 'a suspension made for exhibitions: it settles within hours of running',
  },
  // Handbooks give three to six months. We take the low end: particles in fins cost a strip-down, an early change costs a bottle.
  opaque: { label: 'opaque pastel', baseLifeMonths: 3, baseLifeRunningHours: null, why: 'particles leave suspension after some months' },
  clear: { label: 'clear with inhibitor', baseLifeMonths: 12, baseLifeRunningHours: null, why: 'the inhibitor is used up in about a year' },
  biocide: { label: 'distilled water with biocide', baseLifeMonths: 6, baseLifeRunningHours: null, why: 'the biocide must be renewed' },
} as const satisfies Record<string, { label: string; baseLifeMonths: number; baseLifeRunningHours: number | null; why: string }>;

export type CoolantClass = keyof typeof COOLANT_CLASSES;
export const COOLANT_CLASS_KEYS = Object.keys(COOLANT_CLASSES) as CoolantClass[];

/** °C at which base lives are stated; life halves for each `HALVING_K` above it (Arrhenius rule of thumb). */
export const REFERENCE_COOLANT_C = 35;
const HALVING_K = 10;
/** Cold coolant does not live for ever: the gain below the reference is capped. */
const MOST_LIFE_FACTOR = 1;

/** Factor on a chemical life at mean coolant temperature `meanC`: 2^−((T−35)/10), never above 1. */
export function lifeFactor(meanC: number): number {
  return Math.min(MOST_LIFE_FACTOR, 2 ** (-(meanC - REFERENCE_COOLANT_C) / HALVING_K));
}

export interface CoolantProduct {
  readonly name: string;
  readonly coolantClass: CoolantClass;
  readonly form: 'ready-mix' | 'concentrate';
  /** volume fraction of concentrate in the finished coolant; null for ready-mix */
  readonly targetFraction: number | null;
  readonly bottleMl: number;
  /** months from the product's own sheet, or null where it states none */
  readonly sheetLifeMonths: number | null;
}
