/** How a radiator stands in the upright case: lying flat, or by where its higher flow port is. */
export type RadiatorStand = 'flat' | 'ports-up' | 'ports-aside' | 'ports-down' | 'unknown';

/** A mean and its standard deviation. */
export interface Guess {
  readonly mean: number;
  readonly sd: number;
}

export const LEARNING = {
  /** share of a volume by which two pieces of one catalogue item differ (general estimate) */
  pieceSpread: 0.05,
  /** mL by which the gas that stays differs from one fill to the next */
  gasSpreadMl: 8,
  /** mL of gas in blocks, pump and fittings of a bled loop (general estimate) */
  gasElsewhereMl: { mean: 8, sd: 15 } satisfies Guess,
  /** standard deviations of a difference beyond which a fill says that something is wrong, not what a part holds */
  mostSurprise: 3,
  /** mL; a fill that is known no better teaches no volume (its pours, and the level at its end) */
  taughtWithinSdMl: 45,
  /** fills from which "all of them are too far off" can be told from one that is */
  wholeFromFills: 5,
  /** share by which all sheets together may be off to one side (estimate) */
  sheetsSd: 0.1,
  /** how far, in logarithms, the spread of sheets may be from the general estimate */
  widerSd: 0.7,
  /** factors by which the standard deviations of the sheets are widened then */
  widenBy: [1, 1.25, 1.6, 2, 2.5, 3.2, 4],
} as const;

/**
 * Share of a radiator that stays gas once its loop is bled, by the way it stands (general estimates; with both ports low
 * the far tank stays, see the core rule of trapped air).
 */
export const GAS_BY_STAND: Readonly<Record<RadiatorStand, Guess>> = {
  flat: { mean: 0.03, sd: 0.03 },
  'ports-up': { mean: 0.02, sd: 0.02 },
  'ports-aside': { mean: 0.04, sd: 0.04 },
  'ports-down': { mean: 0.08, sd: 0.05 },
  unknown: { mean: 0.04, sd: 0.04 },
};
