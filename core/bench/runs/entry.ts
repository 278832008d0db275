import { say } from '../../base/words/say.js';
import type Joi from 'joi';
import type { LiveBook } from '../../physics/live-book/liveBook.js';
import type { Lock, LockRule } from './locks.js';
import type { Procedure, StepKind } from './procedure.js';
import type { Made, ReadingSource, Remark, RunState, Stamped } from './state.js';
import type { MisfitFact } from './why.js';

/** A lock that was passed over with a reason. Only those that can be safe may be. */
export interface Override {
  readonly rule: string;
  readonly reason: string;
}

/** Why an entry is not taken. */
export interface Refusal {
  readonly code: 'interlock' | 'signed-off' | 'too-early' | 'unknown-item' | 'step-open' | 'unsafe' | 'waits' | 'not-yours-to-undo';
  readonly fact: MisfitFact | Lock['fact'];
  /** the lock, where it is one, and whether a recorded reason may pass it over */
  readonly rule?: LockRule;
  readonly mayOverride?: boolean;
}

export const refusal = (code: Refusal['code'], fact: MisfitFact): Refusal => ({ code, fact });

/** What a rule sees: the run as it stands before the entry. */
export interface Standing {
  readonly procedure: Procedure;
  readonly state: RunState;
  readonly nowMs: number;
}

/** What an entry takes from the shelf or puts into waste. */
export type Booking =
  | { readonly kind: 'coolant'; readonly lotId: string; readonly ml: number }
  | { readonly kind: 'waste'; readonly containerId: string; readonly ml: number }
  | { readonly kind: 'item'; readonly itemId: string; readonly count: number };

/** How an entry reads in a log, years later and without the procedure at hand. */
export interface Telling {
  readonly procedure: Procedure;
  /** name of a part, tube or item */
  readonly nameOf: (id: string) => string;
  /** name of a port, as it was called when the run began */
  readonly portOf: (id: string) => string;
  /** another entry of the same log, as a sentence */
  readonly sentenceOf: (eventId: string) => string;
}

/** Where an entry belongs: at any time before the sign-off, to the log itself, to the step it names, or to a step by what it is. */
export type Belongs = 'anytime' | 'log' | 'own-step' | { readonly kind: StepKind; readonly before?: boolean };

/**
 * One kind of entry, whole: what it may look like, how it changes a run, when it does not fit, which locks it meets, how it
 * reads, what it books. Before `apply`: the entry was taken. After: the state is as if it had always been part of it.
 */
export interface EntryDefinition<B extends { readonly type: string }> {
  readonly schema: Joi.SchemaMap;
  /** an entry as an older program wrote it, in today's shape */
  readonly upgrade?: (written: Readonly<Record<string, unknown>>) => Record<string, unknown>;
  readonly belongs: Belongs | ((body: B) => Belongs);
  /** may name a step that is still to come */
  readonly ahead?: boolean;
  /** may be written while the run waits off its bench: no hand is at the machine */
  readonly whileWaiting?: boolean;
  readonly apply: (state: RunState, body: B, made: Made, procedure: Procedure) => void;
  /** what it moves inside the loop, told before it is applied */
  readonly moves?: (book: LiveBook, body: B, before: RunState, procedure: Procedure, made: Made) => void;
  /**
   * Of an entry after which the loop is another one: id of what is no more to the id of what took over its liquid. It is told with the loop
   * that was; what is inside passes to the loop that follows.
   */
  readonly carriesOver?: (body: B, procedure: Procedure) => ReadonlyMap<string, string>;
  readonly refuse?: (body: B, standing: Standing) => Refusal | null;
  readonly locks?: (body: B, standing: Standing) => Lock[];
  readonly reads: (body: B, telling: Telling) => string;
  readonly books?: (body: B, before: RunState) => Booking | null;
}

export const stamp = <T>({ eventId, at }: Made, value: T, source: ReadingSource | undefined): Stamped<T> => ({
  eventId,
  at,
  value,
  source: source ?? 'hand',
});
export const remark = (made: Made, text: string): Remark => ({ ...made, text });

const SOURCE_WORDS: Record<ReadingSource, string> = { hand: '', instrument: ', by instrument', simulated: ', by a simulated instrument' };
/** how a value came, behind it in a sentence */
export const bySource = (source: ReadingSource | undefined): string => say(SOURCE_WORDS[source ?? 'hand']);
export const passedOver = (override: Override | undefined): string =>
  override ? say(', lock passed over: {reason}', { reason: override.reason }) : '';
