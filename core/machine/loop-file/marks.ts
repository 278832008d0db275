import type { LoopComponent, LoopFile } from './loopFile.js';

/** Marks of a reservoir whose file states none, as shares of its inside (general estimate). */
export const DEFAULT_MARKS = { fillShare: 0.88, lowShare: 0.3 } as const;

/** mL in the reservoir at its fill mark and at its low mark. */
export function reservoirMarks(reservoir: LoopComponent): { fillMarkMl: number; lowMarkMl: number } {
  const fillMarkMl = reservoir.max_fill_ml ?? DEFAULT_MARKS.fillShare * reservoir.volume_ml;
  return { fillMarkMl, lowMarkMl: reservoir.low_mark_ml ?? Math.min(fillMarkMl, DEFAULT_MARKS.lowShare * reservoir.volume_ml) };
}

/** Without one, nothing has a mark: it is filled from a bottle, and weighed. */
export const hasReservoir = (loop: LoopFile): boolean => loop.components.some(({ kind }) => kind === 'reservoir');
