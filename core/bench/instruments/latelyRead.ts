import type { InstrumentKind, InstrumentReading } from './kinds.js';

/** What an instrument reads now, as a load test is read: the mean of the last five minutes, or the last value where it has not spoken so long. */
export interface LatelyRead {
  readonly value: number;
  readonly isMean: boolean;
}

/** s; "mean of the last five minutes" */
const WINDOW_S = 300;
/** share of that time that must be read for a mean of it */
const LEAST_SHARE = 0.95;

/** @returns null: it has said nothing */
export function latelyRead(readings: readonly InstrumentReading[], kind: InstrumentKind): LatelyRead | null {
  const own = readings.filter((each) => each.kind === kind);
  const last = own.at(-1);
  if (!last) return null;
  const fromMs = Date.parse(last.at) - WINDOW_S * 1000;
  const within = own.filter(({ at }) => Date.parse(at) >= fromMs);
  const spanMs = Date.parse(last.at) - Date.parse((within[0] as InstrumentReading).at);
  if (spanMs < LEAST_SHARE * WINDOW_S * 1000) return { value: last.value, isMean: false };
  return { value: within.reduce((sum, { value }) => sum + value, 0) / within.length, isMean: true };
}
