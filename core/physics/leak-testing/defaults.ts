/** Defaults of the air test. Sources: ASTM E2930 (pressure decay), EN 1779 (choice of method), and workshop practice. */

/** kPa gauge; the usual test pressure */
export const TEST_GAUGE_KPA = 50;
/** kPa gauge; never more without a rating on record: glass and acrylic burst */
export const MOST_GAUGE_KPA = 70;
/** mbar·L/s; what each length of test can exclude */
export const LEAK_LIMITS = {
  screen: { mbarLs: 1e-2, label: 'screen', meaning: 'liquid-tight in practice; a first screen of a few minutes' },
  thorough: { mbarLs: 1e-3, label: 'thorough', meaning: 'vapour-tight; about half an hour with a fine gauge' },
  long: { mbarLs: 2e-4, label: 'long', meaning: 'a tenth of a millilitre a day; hours' },
} as const;
export type LeakLimitKey = keyof typeof LEAK_LIMITS;

/** minutes; no shorter hold after settling, however fine the gauge: people need time to look at the joints */
export const LEAST_HOLD_MINUTES = 10;
/** minutes; the longest wait that a "not yet" proposes */
export const MOST_WAIT_MINUTES = 1440;
/** K; standard deviation of a room thermometer beside the loop */
export const TEMP_SD_K = 0.1;
/** K; room temperature in the hold-time formula */
export const HOLD_ROOM_K = 294;
/** kPa; working pressure of a running loop, for converting an air leak to a liquid leak */
export const WORKING_KPA = 20;
/** viscosity of air over that of water at 20 °C: 18.2 µPa·s / 1.0016 mPa·s */
export const AIR_TO_WATER_VISCOSITY = 0.0182;
/** fewest readings that a slope with a start and a settling beside it can come from */
export const LEAST_TAIL_READINGS = 4;
/** kPa; settling of warm air and soft tube takes no more: a fall beyond it is a leak (general estimate) */
export const MOST_SETTLING_KPA = 5;
/** s; time constants that a fitted settling may have */
export const SETTLING_TAU_S = { least: 20, most: 3600 } as const;
/** kPa; a gauge that shows no more stands on a loop that was let out */
export const LET_OUT_KPA = 2;
/** share of its first reading that a gauge must keep: below, a test is never passed */
export const LEAST_KEPT_SHARE = 0.5;
/** kPa between two readings, the temperature taken out: neither weather nor a warm hand raises a closed loop by more; somebody pumped (general estimate) */
export const PUMPED_UP_KPA = 2;
/** temperature errors beyond which a gauge's step is the whole error: its reading says between which pressures it lies */
export const COARSE_BEYOND = 3;
/** kPa/s; standard deviation of what the weather does to a gauge without a barometer: 1 mbar an hour (general estimate) */
export const WEATHER_KPA_PER_S = 0.1 / 3600;
