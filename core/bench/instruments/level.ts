import { middleOf } from '../../base/statistics/median.js';
import { AUTO } from './defaults.js';
import type { InstrumentReading } from './kinds.js';

/** mL in a reservoir whose level sensor stands at so many mm above its bottom; null where its measures are unknown. */
export const levelMlOf = ({ mlPerMm }: { readonly mlPerMm?: number }, levelMm: number): number | null =>
  mlPerMm === undefined ? null : levelMm * mlPerMm;

/**
 * Levels before and after a stop of the pump: the median of the last seconds while it ran, and of the last ones once
 * the surface came to rest. null for what cannot be told yet, or never could because nobody measured.
 */
export function levelsAroundStop(
  readings: readonly InstrumentReading[],
  startedAt: string,
  stoppedAt: string,
): { runningMm: number | null; stoppedMm: number | null } {
  const levels = readings.filter(({ kind }) => kind === 'level').map(({ value, at }) => ({ value, atMs: Date.parse(at) }));
  const stopMs = Date.parse(stoppedAt);
  const fromMs = Math.max(Date.parse(startedAt), stopMs - AUTO.levelWindowS * 1000);
  const whileRunning = levels.filter(({ atMs }) => atMs > Date.parse(startedAt) && atMs <= stopMs);
  const lately = whileRunning.filter(({ atMs }) => atMs > fromMs);
  // a sensor that speaks rarely: its last word while the pump ran
  const running = (lately.length > 0 ? lately : whileRunning.slice(-1)).map(({ value }) => value);
  const restMs = stopMs + AUTO.levelRestS * 1000;
  const rested = levels.filter(({ atMs }) => atMs >= restMs);
  const untilMs = (rested[0]?.atMs ?? restMs) + AUTO.levelWindowS * 1000;
  const standing = rested.filter(({ atMs }) => atMs <= untilMs).map(({ value }) => value);
  const round = (value: number): number => Math.round(value * 10) / 10;
  return {
    runningMm: running.length > 0 ? round(middleOf(running)) : null,
    stoppedMm: standing.length > 0 ? round(middleOf(standing)) : null,
  };
}
