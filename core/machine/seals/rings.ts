import { daysBetween } from '../../base/units/calendar.js';
import type { LoopFile } from '../loop-file/loopFile.js';
import { sealPlaces, type SealPlace } from './places.js';

/** Days on which single rings were renewed, place by place; the others are as old as the loop's last strip or first fill. */
export type RenewedRings = Readonly<Record<string, string>>;

/** What is kept of a loop’s rings. */
export interface KeptRings {
  readonly renewed: RenewedRings;
  /** since when the oldest of them serves; null: some are as old as the loop’s last strip or first fill */
  readonly oldestOn: string | null;
}

export interface RingAge {
  readonly place: SealPlace;
  /** the day since which it serves; null: nobody knows */
  readonly since: string | null;
  readonly days: number | null;
}

const later = (a: string | null, b: string | undefined): string | null => (b !== undefined && (a === null || b > a) ? b : a);

/**
 * How old each ring and gasket is, the oldest first; of those that are as old in the drawing's order.
 * @param baseOn the last strip or the first fill: all of them were new; null: nobody knows
 */
export function ringAges(loop: LoopFile, baseOn: string | null, renewed: RenewedRings, today: string): RingAge[] {
  return sealPlaces(loop)
    .filter(({ hasRing }) => hasRing)
    .map((place): RingAge => {
      const since = later(baseOn, renewed[place.id]);
      return { place, since, days: since === null ? null : Math.max(0, daysBetween(since, today)) };
    })
    .sort((a, b) => (a.since ?? '').localeCompare(b.since ?? ''));
}

/** Since when the oldest ring of a loop serves; null: some are as old as the loop itself. */
export function oldestRenewed(loop: LoopFile, renewed: RenewedRings): string | null {
  const days = sealPlaces(loop)
    .filter(({ hasRing }) => hasRing)
    .map(({ id }) => renewed[id]);
  if (days.length === 0 || days.some((day) => day === undefined)) return null;
  return (days as string[]).reduce((oldest, day) => (day < oldest ? day : oldest));
}
