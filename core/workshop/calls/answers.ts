import type { DateReason } from '../due-dates/facts.js';
import type { Appointment, Ready } from '../jobs/answers.js';
import type { Whereabouts } from '../jobs/arrival.js';
import type { BookedKind, JobKind } from '../job-kinds/kinds.js';
import type { Estimate } from '../prices/estimate.js';
import type { WaitsSince } from '../jobs/waitFor.js';
import type { SystemState } from '../due-dates/attention.js';
import type { Offer } from './offers.js';

/** What the desk says on the phone about one machine. */
export interface CallMachine {
  readonly systemId: string;
  readonly name: string;
  readonly tag: string;
  readonly state: SystemState;
  readonly owner: string;
  readonly phone: string | null;
  readonly email: string | null;
  /** loops that can be served, the one that falls due first at the head; empty: none is known */
  readonly loops: readonly { readonly id: string; readonly name: string }[];
  readonly due: { readonly dueOn: string; readonly reason: DateReason; readonly estimated: boolean; readonly postponed: number } | null;
  readonly job: CallJob | null;
  /** done and still here */
  readonly ready: Ready | null;
  readonly run: CallRun | null;
}

/** The job that is open for it. */
export interface CallJob {
  readonly id: string;
  readonly kind: BookedKind;
  readonly consented: boolean;
  readonly neededBy: string | null;
  readonly estimate: Estimate;
  readonly slot: Appointment | null;
  readonly where: Whereabouts;
  readonly broughtOn: string | null;
  readonly notComeOn: string | null;
}

/** The run it stands in. */
export interface CallRun {
  readonly id: string;
  /** null: nobody planned when it ends */
  readonly until: string | null;
  readonly waits: WaitsSince | null;
}

export interface CallAnswer {
  readonly today: string;
  readonly timeZone: string;
  readonly machines: readonly CallMachine[];
  /** more fit than are shown: a longer word finds them */
  readonly more: boolean;
}

/** What a loop comes in for when its date comes, and what that takes here. */
export interface NextVisit {
  readonly kind: JobKind;
  /** h with hands, as such jobs took here where some were led, as they usually take otherwise */
  readonly hours: number;
  readonly learnedFrom: number;
  readonly coolantMl: number;
}

export interface OffersAnswer {
  readonly offers: readonly (Offer & { readonly bench: string; readonly from: string; readonly to: string })[];
  /** min with somebody at it */
  readonly attendedMinutes: number;
  /** runs that they were learned from; 0: an estimate */
  readonly learnedFrom: number;
}
