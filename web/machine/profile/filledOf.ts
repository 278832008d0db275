import type { InsideNow } from '@core/physics/live-book/insideNow.js';

/** What is inside a loop, for its profile; null: it stands full. */
export const filledOf = (inside: InsideNow | null | undefined): ReadonlyMap<string, number> | null =>
  inside?.shares ? new Map(Object.entries(inside.shares)) : null;
