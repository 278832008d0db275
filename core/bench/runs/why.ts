import type { BleedLack } from '../../physics/air/bleed.js';
import type { FillSymptom } from '../fill-troubles/causes.js';
import type { WaitFor } from '../../workshop/jobs/waitFor.js';
import type { After } from './procedure.js';
import type { WaitHindrance } from './waiting.js';
import type { Clarity, RinseLiquid } from '../../machine/liquids/rinsing.js';

/**
 * Why something is not done, not taken or still open: a code with its values. Ids stand for places; volumes are in mL,
 * pressures in kPa, angles in degrees, times in minutes or hours as named. Words are made at the edge, in `core/edge/words`.
 */

/** What must not happen next. */
export type LockFact =
  | { readonly why: 'not-isolated'; readonly toPull: number }
  | { readonly why: 'loads-before-air' }
  | { readonly why: 'joint-open'; readonly joint: string }
  | { readonly why: 'joint-while-pumping' }
  | { readonly why: 'port-open'; readonly port: string }
  | { readonly why: 'under-air'; readonly gaugeKpa: number }
  | { readonly why: 'valve-while-pumping' }
  | { readonly why: 'pump-turned'; readonly angleDeg: number; readonly uncoverDeg: number }
  | { readonly why: 'pump-dry' }
  | { readonly why: 'low-mark'; readonly levelMl: number; readonly measured: boolean }
  | { readonly why: 'air-before-drain' }
  | { readonly why: 'cap-before-turn'; readonly port: string }
  | { readonly why: 'joint-before-turn'; readonly joint: string }
  | { readonly why: 'outlet-uncovers'; readonly uncoverDeg: number }
  | { readonly why: 'over-pressure'; readonly gaugeKpa: number; readonly mostKpa: number; readonly weakest: string | null }
  | { readonly why: 'doubt-untested'; readonly place: string; readonly said: string }
  | { readonly why: 'doubt-leaked'; readonly place: string; readonly said: string }
  | { readonly why: 'leak-not-mended'; readonly place: string }
  | { readonly why: 'seal-missing'; readonly place: string }
  | { readonly why: 'drawn-down' }
  | { readonly why: 'not-rinsed' }
  | { readonly why: 'still-drying'; readonly hours: number }
  | {
      readonly why: 'must-not-mix';
      readonly never: boolean;
      /** the pair's own reason, from the table of pairs */
      readonly reason: string;
      readonly oldPercent: number;
      readonly mostPercent: number;
    };

/** What keeps a run from being signed off. */
export type FailureFact =
  | { readonly why: 'failed-doubt'; readonly place: string; readonly leaked: boolean }
  | { readonly why: 'failed-leak'; readonly place: string; readonly mended: boolean }
  | { readonly why: 'failed-spill' }
  | { readonly why: 'failed-sisters'; readonly place: string };

/** What a step still lacks before it can be called done. */
export type LackFact =
  | FailureFact
  | { readonly why: 'no-such-step' }
  | { readonly why: 'checks-open'; readonly count: number; readonly beforePower: number }
  | { readonly why: 'timer-running' | 'timer-stopped' | 'timer-not-started'; readonly label: string }
  | { readonly why: 'no-reading'; readonly least: number }
  | { readonly why: 'air-test-failed' }
  | { readonly why: 'air-test-open'; readonly minutes: number }
  | { readonly why: 'nothing-topped-up' | 'no-coolant' | 'nothing-poured' | 'no-part-tested' | 'no-baseline' }
  | { readonly why: 'fill-open' | 'fill-over'; readonly ml: number }
  | { readonly why: 'part-leaked'; readonly place: string }
  | BleedLack
  | { readonly why: 'drawn-down' }
  | { readonly why: 'fill-trouble-open'; readonly symptom: FillSymptom }
  | { readonly why: 'nothing-drained' | 'nothing-rinsed' | 'water-not-read' | 'ph-not-read' | 'cause-open' | 'nothing-wrong-recorded' }
  | { readonly why: 'more-out-than-in'; readonly ml: number }
  | { readonly why: 'old-left'; readonly percent: number; readonly targetPercent: number }
  | { readonly why: 'last-rinse'; readonly liquid: RinseLiquid }
  | { readonly why: 'water-unclear'; readonly clarity: Clarity }
  | { readonly why: 'ph-off'; readonly ph: number; readonly from: number; readonly to: number }
  | { readonly why: 'items-not-seen'; readonly count: number }
  | { readonly why: 'cleaner-in'; readonly cleaner: string }
  | { readonly why: 'not-smooth' | 'to-replace' | 'no-place'; readonly items: readonly string[] }
  | { readonly why: 'not-rebuilt' }
  | { readonly why: 'leaks-not-mended'; readonly count: number };

/** Why an entry does not fit the run it is meant for. */
export type MisfitFact =
  | {
      readonly why:
        | 'open-run-correction'
        | 'signed-off'
        | 'steps-before-sign-off'
        | 'use-sign-off'
        | 'rescope-elsewhere'
        | 'bypass-elsewhere'
        | 'rebuilt-elsewhere';
    }
  | { readonly why: 'no-step'; readonly step: string }
  | { readonly why: 'too-early'; readonly first: string; readonly then: string }
  | { readonly why: 'step-not-done'; readonly step: string; readonly lacks: readonly LackFact[] }
  | {
      readonly why: 'protects-power' | 'protects-closing' | 'protects-emptying' | 'protects-change' | 'protects-return';
      readonly step: string;
    }
  | { readonly why: 'unknown-check' | 'unknown-timer'; readonly step: string; readonly name: string }
  | { readonly why: 'check-later'; readonly text: string; readonly after: After; readonly clock: string }
  | { readonly why: 'one-by-one' }
  | { readonly why: 'always-needed'; readonly text: string }
  | { readonly why: 'pulls-nothing'; readonly step: string }
  | { readonly why: 'pulled-already'; readonly name: string }
  | {
      readonly why: 'unknown-port' | 'unknown-joint' | 'unknown-part' | 'unknown-place' | 'unknown-item' | 'unknown-cause';
      readonly name: string;
    }
  | {
      readonly why:
        | 'unknown-leak'
        | 'unknown-spill'
        | 'unknown-seal'
        | 'unknown-trouble'
        | 'loads-not-allowed'
        | 'loads-not-on'
        | 'leak-mend-first'
        | 'test-air-again'
        | 'run-it-first'
        | 'say-which-part'
        | 'dye-last'
        | 'fix-day-past'
        | 'not-a-service'
        | 'nothing-read';
    }
  | { readonly why: 'no-entry' | 'already-withdrawn' | 'undo-of-undo' | 'not-undone' | 'told-already' }
  | WaitHindrance
  | { readonly why: 'waits'; readonly waitsFor: WaitFor; readonly what: string; readonly until: string }
  | { readonly why: 'wait-day-past' | 'not-waiting' | 'wait-elsewhere' }
  | { readonly why: 'not-left-safe' | 'not-looked-at'; readonly count: number }
  | { readonly why: 'too-much-out'; readonly ml: number; readonly insideMl: number }
  | { readonly why: 'lighter-than-before'; readonly beforeG: number }
  | { readonly why: 'jug-holds-less'; readonly ml: number; readonly jugMl: number }
  | { readonly why: 'cleaner-is-in'; readonly cleaner: string }
  | { readonly why: 'no-cleaner-in' }
  | { readonly why: 'unknown-kind'; readonly kind: string };

export type Why = LockFact | FailureFact | LackFact | MisfitFact;
export type WhyCode = Why['why'];
