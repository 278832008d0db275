import { AUTO } from './defaults.js';
import type { InstrumentReading } from './kinds.js';

/** What a scale under the can lost between two moments at which it stood still. */
export interface ScalePour {
  readonly ml: number;
  /** the scale has come to rest: a pour is over */
  readonly steady: boolean;
}

/**
 * What was poured since an instant, from a scale under the can. A can lifted off and put back counts as what it lost
 * meanwhile; while it is off, or the scale still moves, the pour is not over.
 * @param sinceAt instant of the pour entered last, or of the step's begin
 * @returns null without readings on both sides
 */
export function pouredByScale(readings: readonly InstrumentReading[], sinceAt: string, densityKgL: number): ScalePour | null {
  const scale = readings.filter(({ kind }) => kind === 'scale').map(({ value, at }) => ({ value, atMs: Date.parse(at) }));
  const sinceMs = Date.parse(sinceAt);
  const before = scale.filter(({ atMs }) => atMs <= sinceMs).at(-1) ?? scale[0];
  const last = scale.at(-1);
  if (!before || !last || last.atMs <= before.atMs) return null;
  const lostG = before.value - last.value;
  if (lostG > AUTO.mostPourG) return { ml: 0, steady: false };
  const recent = scale.filter(({ atMs }) => atMs >= last.atMs - AUTO.steadyS * 1000);
  const spanMs = last.atMs - (recent[0] as { atMs: number }).atMs;
  const moved = Math.max(...recent.map(({ value }) => value)) - Math.min(...recent.map(({ value }) => value));
  const steady = spanMs >= 0.6 * AUTO.steadyS * 1000 && moved <= AUTO.steadyG;
  return lostG < AUTO.leastPourG ? { ml: 0, steady } : { ml: lostG / densityKgL, steady };
}
