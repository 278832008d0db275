/** Months that the life rows show on either side of today. Services further away end at the edge. */
export const PAST_MONTHS = 3;
export const AHEAD_MONTHS = 12;
