import type { LearnedCatalogue, ObservedFill, SurprisingFill } from './catalogueVolumes.js';

/** What the lead says of a fill that surprises. */
export type TaughtVerdict = NonNullable<ObservedFill['verdict']>;

/** A fill that is asked about, with whose machine it is. */
export interface AskedFill extends SurprisingFill {
  readonly system: { readonly id: string; readonly name: string };
  readonly filledOn: string;
  readonly runId: string | null;
}

/** Volumes as the workshop's own fills tell them. */
export interface LearnedAnswer extends Omit<LearnedCatalogue, 'surprising'> {
  readonly surprising: AskedFill[];
}
