import type { FalloutSeen } from '../due-dates/falloutStages.js';

export interface FalloutLook extends FalloutSeen {
  readonly id: string;
  readonly note: string;
  readonly by: string;
}

/** What was seen of the liquid that is in a loop, the last first. */
export interface FalloutAnswer {
  /** day of the fill; null: it was not filled here */
  readonly filledOn: string | null;
  readonly looks: readonly FalloutLook[];
}
