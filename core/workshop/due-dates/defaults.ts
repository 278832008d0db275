/** Days, months and shares that dates are made from (workshop practice unless a source is named). A product's own sheet goes before them. */

/** days after a fill in which the settling check is made */
export const SETTLING_WINDOW_DAYS = { from: 2, to: 7 } as const;
/** the same after a loop was called bled by eye alone: nobody knows how much air is to come home (workshop practice) */
export const SEEN_BLED_WINDOW_DAYS = { from: 1, to: 3 } as const;
/** A fill after which something stayed inside: share of the interval, and days to the early look. */
export const AFTER_FINDINGS = { intervalShare: 0.5, earlyLookDays: 10 } as const;
/** months that O-rings and soft tube serve; makers state less for warm loops */
export const WEAR_MONTHS = { seals: 60, softTube: 36 } as const;
/** days before its date from which a service counts as coming */
export const SOON_DAYS = 30;
/** days that a fill serves at least before a season calls for the next: a loop filled in late spring is not opened again in early summer */
export const SEASON_LEAST_DAYS = 90;
/** months until fins and filters are full again, by where the machine stands */
export const DUST_MONTHS = { clean: 12, usual: 6, dusty: 3 } as const;
/** months that what lies between chip and block serves; pumped out or dried paste shows in the readings first (workshop practice) */
export const PASTE_MONTHS = { paste: 36, pad: 60, metal: 48 } as const;
/** How often, or how many days past the clock that came first, before an item that was put off grows louder. */
export const ESCALATION = {
  second: { times: 2, days: 60 },
  third: { times: 3, days: 120 },
} as const;
