import { LEAST_SAMPLES, saturate, type Saturation, type WarmingSample } from '../../physics/diagnosis/saturation.js';
import type { RunState } from './state.js';

/** A load test while it runs: what was noted of one sensor, and where its curve ends. */
export interface Warming {
  readonly samples: readonly WarmingSample[];
  /** those that the curve goes through */
  readonly fitted: readonly WarmingSample[];
  /** instant of the first, ISO 8601 */
  readonly from: string;
  /** null: fewer than `LEAST_SAMPLES`, or all at one moment */
  readonly ends: Saturation | null;
}

/** s from the start of a load within which a part, metal and all, comes to where it stands over its coolant (general estimate) */
const JUMP_S = 100;

type Notes = RunState['warmings'];

/** Notes of a sensor since its last reading was entered, in the order of the log. */
function notesOf({ warmings, befores, baselines }: RunState, sensor: string, before: boolean): Notes {
  const readings = before ? befores : baselines;
  const since = readings.filter(({ value }) => value.sensor === sensor).at(-1)?.at ?? '';
  return warmings.filter(({ at, value }) => value.sensor === sensor && value.before === before && at > since);
}

/** The last note of a sensor while an instrument goes on noting it by itself; null: it rests, or a hand notes it. */
export function streamedNote(state: RunState, sensor: string, before: boolean): Notes[number] | null {
  const last = notesOf(state, sensor, before).at(-1);
  return last && last.source !== 'hand' ? last : null;
}

/** What was noted of a sensor since its last reading was entered; null: nothing. */
export function warmingOf(state: RunState, sensor: string, before: boolean): Warming | null {
  const own = notesOf(state, sensor, before);
  const [first] = own;
  if (!first) return null;
  const start = Date.parse(first.at);
  const samples = own
    .map(({ at, value }): WarmingSample => ({ tS: (Date.parse(at) - start) / 1000, tempC: value.tempC }))
    .sort((a, b) => a.tS - b.tS);
  // by hand nobody notes the jump that a part makes before its coolant begins to warm; an instrument does
  const later = first.source === 'hand' ? samples : samples.filter(({ tS }) => tS >= JUMP_S);
  const fitted = later.length < LEAST_SAMPLES ? samples : later;
  return { samples, fitted, from: first.at, ends: fitted.length < LEAST_SAMPLES ? null : saturate(fitted) };
}
