import type { BookedKind } from '../job-kinds/kinds.js';

/** How a workshop's plan is put together. Durations are workshop practice until finished runs say otherwise. */
export const PLAN = {
  /** days that the board looks ahead */
  horizonDays: 28,
  /** min from now until hands can begin: a plan arranged now still holds when it is taken a few minutes later */
  leadMinutes: 15,
  /** min that a first step may lie back when a plan is taken: it was looked at meanwhile */
  graceMinutes: 10,
  /** min; longer attended work is cut into pieces, so that it fits between lunch and closing */
  longestPieceMinutes: 180,
  /** min a technician may leave a machine between two attended pieces of one job */
  pieceWaitMinutes: 24 * 60,
  /** min after which a cleaner must be out: the rinse may not wait longer than this */
  soakMostWaitMinutes: 60,
  soakMinutes: 120,
  /** finished runs of a kind from which a duration is learned */
  leastRuns: 3,
  /** weight of a day late: a promise to an owner against one nobody was given */
  promisedWeight: 3,
  unpromisedWeight: 1,
  /** days after which a job nobody gave a day for counts as late */
  unpromisedDays: 21,
} as const;

/** How a job's attended time lies around its unattended stretches: before the soak, before the wet test, after it. */
export const SHARES: Readonly<Record<BookedKind, { readonly first: number; readonly soak: boolean; readonly wet: boolean }>> = {
  commissioning: { first: 0.85, soak: false, wet: true },
  'into-loop': { first: 0.85, soak: false, wet: true },
  'closed-loop': { first: 1, soak: false, wet: false },
  'top-up': { first: 1, soak: false, wet: false },
  'drain-refill': { first: 0.7, soak: false, wet: true },
  'flush-refill': { first: 0.75, soak: false, wet: true },
  'strip-clean': { first: 0.45, soak: true, wet: true },
  'leak-repair': { first: 0.7, soak: false, wet: true },
  'partial-drain': { first: 0.75, soak: false, wet: true },
  'part-replacement': { first: 0.75, soak: false, wet: true },
  'loop-change': { first: 0.8, soak: false, wet: true },
  'part-conversion': { first: 0.75, soak: false, wet: true },
  conversion: { first: 1, soak: false, wet: false },
  retirement: { first: 1, soak: false, wet: false },
};
/** share of a strip's attended time that comes between soak and wet test */
export const AFTER_SOAK_SHARE = 0.4;
