import type { InsideNow } from '@core/physics/live-book/insideNow.js';

/** What is inside a loop, for its profile; null: it stands full. What nobody knows is not drawn. */
export function filledOf(inside: InsideNow | null | undefined): ReadonlyMap<string, number> | null {
  if (inside?.by === 'nobody') return new Map();
  return inside?.shares ? new Map(Object.entries(inside.shares)) : null;
}
