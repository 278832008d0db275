import { MBAR_PER_KPA, STANDARD_ATMOSPHERE_KPA, Z_ONE_SIDED_95 } from '../../base/units/physics.js';
import { HOLD_ROOM_K, LEAST_HOLD_MINUTES, TEMP_SD_K, TEST_GAUGE_KPA } from './defaults.js';

export interface HoldInput {
  /** gas inside: the loop's internal volume less liquid left in it */
  readonly volumeMl: number;
  readonly limitMbarLs: number;
  /** step of the gauge that can be read */
  readonly resolutionKpa: number;
  readonly tempSdK?: number;
  readonly gaugeKpa?: number;
}

/**
 * Standard deviation of one corrected pressure reading, kPa: σ² = r²/12 + (p_abs·σ_T/T)².
 * @param tempK temperature the correction refers to
 */
export function readingSdKpa(resolutionKpa: number, absKpa: number, tempSdK: number, tempK: number): number {
  return Math.sqrt(resolutionKpa ** 2 / 12 + ((absKpa * tempSdK) / tempK) ** 2);
}

/**
 * Minutes to hold after settling, so that a leak at the limit is told from none with 5 % misses and 5 % false alarms:
 * 2·1.645·√2·σ ÷ (limit/V), never below 10 minutes. (ASTM E2930)
 */
export function holdMinutes({ volumeMl, limitMbarLs, resolutionKpa, tempSdK = TEMP_SD_K, gaugeKpa = TEST_GAUGE_KPA }: HoldInput): number {
  const sdMbar = readingSdKpa(resolutionKpa, gaugeKpa + STANDARD_ATMOSPHERE_KPA, tempSdK, HOLD_ROOM_K) * MBAR_PER_KPA;
  const limitMbarPerS = limitMbarLs / (volumeMl / 1000);
  const seconds = (2 * Z_ONE_SIDED_95 * Math.SQRT2 * sdMbar) / limitMbarPerS;
  return Math.max(LEAST_HOLD_MINUTES, seconds / 60);
}
