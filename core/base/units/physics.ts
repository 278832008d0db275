/** Conversions and constants used in more than one room. */

/** kPa; standard atmosphere, ISO 2533 */
export const STANDARD_ATMOSPHERE_KPA = 101.325;
/** K at 0 °C */
export const ZERO_CELSIUS_K = 273.15;
/** mbar in one kPa */
export const MBAR_PER_KPA = 10;
/** days of a year, leap years counted (Julian year) */
export const DAYS_PER_YEAR = 365.25;
/** two-sided 95 % and one-sided 95 % quantiles of the normal distribution */
export const Z_TWO_SIDED_95 = 1.96;
export const Z_ONE_SIDED_95 = 1.645;
