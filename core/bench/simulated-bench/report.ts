import type { HiddenTruth } from './truth.js';

/** What really happened at a simulated bench, whether or not anybody noticed. */
export type Happening =
  | { readonly at: string; readonly what: 'ran-dry'; readonly seconds: number }
  | { readonly at: string; readonly what: 'spilled'; readonly ml: number; readonly by: 'overflow' | 'turn' | 'open-port' }
  | { readonly at: string; readonly what: 'too-much-pressure'; readonly gaugeKpa: number }
  | { readonly at: string; readonly what: 'pocket-freed'; readonly ml: number }
  | { readonly at: string; readonly what: 'leak-mended' }
  | { readonly at: string; readonly what: 'cleared' }
  | { readonly at: string; readonly what: 'circulating' };

export interface BenchReport {
  readonly truth: HiddenTruth;
  readonly pouredMl: number;
  readonly insideMl: number;
  readonly spilledMl: number;
  readonly leakedMl: number;
  /** mL inside when it began; missing here and below: a practice from before services were played */
  readonly startMl?: number;
  /** mL that ran into jugs */
  readonly caughtMl?: number;
  /** mL that were on towels and in parts when the loop was taken apart */
  readonly takenMl?: number;
  /** mL drawn off and put aside */
  readonly drawnMl?: number;
  /** mL inside that were there when it began */
  readonly oldMl?: number;
  /** cleaner that came out again */
  readonly soaks?: number;
  readonly gasMl: number;
  readonly pocketMl: number;
  readonly leakMended: boolean;
  /** what held the flow up was put right */
  readonly narrowCleared: boolean;
  readonly pumpStarts: number;
  /** until liquid came back for the first time */
  readonly startsBeforeReturn: number;
  readonly happenings: readonly Happening[];
}
