/** How a machine's use is read where nobody says more. */

/** hours a day a machine runs where nobody gave a figure (general estimate) */
export const DEFAULT_HOURS_PER_DAY = 4;
/** days a meter or a log must span before it says anything about a usual day: a whole week, working days and the other two */
export const LEAST_SPAN_DAYS = 7;
/** h; a meter that ran day and night for longer than a machine lives */
export const MOST_METER_HOURS = 200_000;
/** °C that a coolant can have; a line outside is a sensor that fell off, its time still counts */
export const SANE_COOLANT_C = { least: 0, most: 90 } as const;
