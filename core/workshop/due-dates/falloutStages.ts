import { addDays } from '../../base/units/calendar.js';
import type { DateReason, FalloutStage } from './facts.js';

/** How far what was held up has fallen out, as somebody saw it on a day; the later stage weighs more. */
export const FALLOUT_STAGES = {
  'comes-back': { label: 'settles at rest, comes back when it runs', days: 30 },
  stays: { label: 'lies there, and does not come back', days: 0 },
  bits: { label: 'bits in the liquid after the refill', days: 14 },
} as const satisfies Record<FalloutStage, { label: string; days: number }>;

export interface FalloutSeen {
  readonly stage: FalloutStage;
  readonly on: string;
}

const WEIGHT: Readonly<Record<FalloutStage, number>> = { 'comes-back': 0, bits: 1, stays: 2 };

/** The heaviest stage that was seen since a fill, from the day on which it was seen first; what was seen before belongs to what came out. */
export function stageSince(seen: readonly FalloutSeen[], filledOn: string): FalloutSeen | null {
  return (
    [...seen]
      .filter(({ on }) => on >= filledOn)
      .sort((one, other) => WEIGHT[other.stage] - WEIGHT[one.stage] || one.on.localeCompare(other.on))[0] ?? null
  );
}

/** What it means for the next service: at once where it stays, within weeks where it does not yet (workshop practice). */
export const falloutDue = ({ stage, on }: FalloutSeen): { dueOn: string; reason: DateReason } => ({
  dueOn: addDays(on, FALLOUT_STAGES[stage].days),
  reason: { why: 'fallout', stage, on },
});
