/** Figures of a flush. A product's own sheet goes before all of them. */
export const FLUSH = {
  /** share of old liquid that may stay when another coolant follows (workshop practice) */
  targetOldFraction: 0.05,
  /** share that may stay where the two must never meet: particles fall out at traces */
  targetNeverFraction: 0.005,
  /** pH of the last neutral rinse after an acid cleaner: near what distilled water from the can shows */
  phFrom: 6,
  phTo: 8,
  /** kPa gauge at most in a reverse flush, unless the part's rating is lower; mains pressure is far above it */
  mostGaugeKpa: 70,
  /** min; a cleaner whose sheet names no time comes out after this (a few hours of an acid are usual, a day is the outer bound) */
  soakMinutes: 240,
  mostSoakMinutes: 1440,
} as const;

export const CLARITIES = ['clear', 'tinted', 'cloudy', 'particles'] as const;
export type Clarity = (typeof CLARITIES)[number];
export const CLARITY_WORDS: Readonly<Record<Clarity, string>> = {
  clear: 'clear',
  tinted: 'still tinted',
  cloudy: 'cloudy',
  particles: 'particles in it',
};

export const RINSE_LIQUIDS = ['distilled', 'mains', 'cleaner', 'spare-coolant'] as const;
export type RinseLiquid = (typeof RINSE_LIQUIDS)[number];
export const RINSE_WORDS: Readonly<Record<RinseLiquid, string>> = {
  distilled: 'distilled water',
  mains: 'mains water',
  cleaner: 'cleaner',
  'spare-coolant': 'spare coolant',
};
