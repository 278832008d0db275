import type { Suspect } from '../../workshop/lots/suspects.js';
import type { Dye } from '../../machine/liquids/dye.js';
import type { RinseLiquid, Clarity } from '../../machine/liquids/rinsing.js';
import type { Flow, LedgerVerdict } from '../../physics/contents/ledger.js';
import type { OwedKind } from '../../workshop/due-dates/owed.js';
import type { PasteMedium } from '../../workshop/due-dates/paste.js';
import type { CauseKey, UseLimit } from '../../workshop/due-dates/facts.js';
import type { JobKind } from '../../workshop/job-kinds/kinds.js';
import type { LotOnBag } from '../../workshop/lots/schema.js';
import type { ItemFindings } from '../inspection/grade.js';
import type { FillSymptom } from '../fill-troubles/causes.js';
import type { LeakAmount, LeakWhen } from '../leak-finding/causes.js';
import type { Waiting } from '../../workshop/jobs/waitFor.js';
import type { StepKind, StepTrait } from './procedure.js';

/** What entries leave in a run's state, kind by kind. */

/** A pour that comes from no lot: this job's old liquid, or what was drawn off in this very run. */
export type PourFrom = 'own-jug' | 'drawn-off';

/** see `entries/outflow.ts` */
export type OutflowWay = 'ran-over' | 'drawn-off' | 'spilled';

export type CheckMark = 'done' | 'open' | 'not-needed';

/** Where a value came from: read and typed, sent by an instrument of the bench, or by a simulated stand-in of one. */
export type ReadingSource = 'hand' | 'instrument' | 'simulated';

/** When and by whom an entry was made. */
export interface Made {
  readonly eventId: string;
  readonly at: string;
  readonly by: string;
}

export interface CheckState {
  readonly mark: CheckMark;
  readonly reason: string | null;
  readonly at: string;
  readonly by: string;
}

export interface Remark extends Made {
  readonly text: string;
}

/** dye that went in */
export type Dyed = Dye;

/** what hands reached for and did not find */
export interface Missed {
  readonly name: string;
}

/** a connector that no sheet knew */
export interface AlsoPulled extends Made {
  readonly line: string;
  readonly name: string;
}

export interface StepState {
  readonly id: string;
  readonly kind: StepKind;
  readonly does: readonly StepTrait[];
  status: 'done' | 'current' | 'to-come';
  readonly checks: Record<string, CheckState>;
  readonly notes: Remark[];
  deviation: Remark | null;
  doneAt: string | null;
}

export interface TimerState {
  readonly step: string;
  readonly startedAt: string;
  readonly stoppedAt: string | null;
  readonly seconds: number;
}

export interface Stamped<T> {
  readonly eventId: string;
  readonly at: string;
  readonly value: T;
  readonly source: ReadingSource;
}

/** Something felt wrong: the part, and the test that answered it. */
export interface Doubt extends Remark {
  readonly part: string;
  answer: { readonly tight: boolean; readonly at: string } | null;
}

export interface Leak extends Remark {
  /** tube or part */
  readonly where: string;
  readonly when: LeakWhen;
  readonly amount: LeakAmount;
  /** found under test air: only test air shows that it is mended */
  readonly inAir: boolean;
  mended: (Remark & { cause: string }) | null;
  /** the places that share its cause were looked at */
  sistersSeen: Made | null;
  /** the last look since it was mended */
  retested: Retest | null;
  /** every look, of every mending */
  retests: readonly Retest[];
}

/** A mended place looked at again: by whom, and as what: under test air, with the pump running since, or standing. */
export interface Retest {
  readonly dry: boolean;
  readonly how: 'air' | 'running' | 'standing';
  readonly at: string;
  readonly by: string;
}

/** What is wrong with the filling, until somebody says what was behind it. */
export interface FillTrouble extends Remark {
  readonly symptom: FillSymptom;
  solved: (Remark & { readonly cause: string }) | null;
}

export interface Spill extends Remark {
  readonly onElectronics: boolean;
  rinsedAt: string | null;
}

export interface Soak {
  readonly cleaner: string;
  readonly mostMinutes: number;
  readonly startedAt: string;
  endedAt: string | null;
}

export interface Drained {
  readonly volumeMl: number;
  readonly how: 'jug' | 'scale';
  /** the waste container it went into; null where it is kept or not yet poured away */
  readonly wasteId: string | null;
}

export interface Rinsed {
  readonly liquid: RinseLiquid;
  readonly volumeMl: number;
}

export interface WaterRead {
  readonly ph: number | null;
  readonly clarity: Clarity;
}

export interface Cause {
  readonly cause: CauseKey;
  readonly suspect: Suspect;
  /** the part that is suspected, where one is */
  readonly item: string | null;
  /** something stayed inside: "clean" is not claimed */
  readonly particlesStayed: boolean;
  readonly text: string;
}

export const SWAP_ACTIONS = ['renewed', 'replaced', 'removed', 'fitted'] as const;
/** what hands do with a part; `bypassed`: left out, so that the loop itself changed */
export type HandSwap = (typeof SWAP_ACTIONS)[number];
export type SwapAction = HandSwap | 'bypassed';
/** The part is out and nothing came in its place: it lies somewhere. */
export const liesOutside = ({ action }: { readonly action: SwapAction }): boolean => action === 'removed' || action === 'bypassed';
/** The part that was there is out, whatever came in its place. */
export const tookOut = (swap: { readonly action: SwapAction }): boolean => swap.action === 'replaced' || liesOutside(swap);

export interface Swapped {
  readonly item: string;
  readonly action: SwapAction;
  /** what went in, or where the removed part lies now */
  readonly text: string;
  /** mL inside a part that was taken out full and capped */
  readonly heldMl: number;
  /** what stood on the bag of what went in; missing: nobody kept it */
  readonly bag?: LotOnBag;
  /** places that had the same bag were looked at */
  sistersSeen?: Made;
}

/** places whose ring or gasket is new */
export interface RingRenewed {
  readonly places: readonly string[];
}

/** Blocks on a new layer; in a build as well. */
export interface Pasted {
  readonly items: readonly string[];
  readonly medium: PasteMedium;
  /** as its tube calls it; empty: nobody wrote it down */
  readonly product: string;
}

export interface Used {
  readonly itemId: string;
  readonly itemName: string;
  readonly count: number;
  /** the part or tube it went to; missing: nobody said */
  readonly item?: string;
  /** its lot on the shelf, where it has one */
  readonly bag?: LotOnBag;
}

export interface TemporaryFix {
  readonly what: string;
  readonly awaits: string;
  /** day by which the final fix must be in */
  readonly until: string;
  readonly limits: readonly UseLimit[];
  /** the job that the final fix is; missing: nobody said */
  readonly then?: JobKind;
}

/** What stays to be done, and the day for it. */
export interface Owed {
  readonly kind: OwedKind;
  readonly what: string;
  readonly until: string;
}

/** A time off the bench, with what it waited for. */
export interface Wait extends Waiting, Made {
  readonly resumed: Made | null;
  /** entries that others were told of when it began: their follow-ups are open, their lots flagged */
  readonly told: readonly string[];
}

/** A place without its seal: nothing under pressure goes in before it has one again. */
export interface BorrowedSeal extends Made {
  readonly from: string;
  /** where it went */
  readonly text: string;
  readonly fitted: Made | null;
}

export interface PhotoTaken {
  readonly photoId: string;
  readonly caption: string;
}

export interface Rescoped {
  readonly kind: JobKind;
  readonly reason: string;
}

/** What the entries of a service make of it. Empty in a commissioning. */
/** How a drain ended: judged once, when its step was closed, and kept so. */
export interface DrainEnd {
  readonly at: string;
  /** mL that came, and that should have come; null where nobody could tell */
  readonly cameMl: number;
  readonly shouldMl: number | null;
  /** mL inside by the book, below nothing where more came than was thought to be in; null: nobody knows */
  readonly leftMl: number | null;
  readonly leftSdMl: number;
  readonly verdict: LedgerVerdict;
  /** parts and tubes that hold what is left, most of it first: mL by id; empty where only volumes are known */
  readonly where: readonly { readonly id: string; readonly ml: number }[];
}

export interface ServiceState {
  /** every liquid that went in, came out or was lost, in the order it happened */
  readonly flows: Flow[];
  readonly drains: (Drained & Made)[];
  /** null before the drain's step was closed */
  drained: DrainEnd | null;
  readonly rinses: (Rinsed & Made)[];
  readonly waters: (WaterRead & Made)[];
  readonly soaks: Soak[];
  /** the last look at each item, and the first one where there were several: before and after cleaning */
  readonly sheet: Map<string, { first: ItemFindings; last: ItemFindings; looks: number }>;
  causes: (Cause & Made)[];
  readonly swaps: (Swapped & Made)[];
  readonly used: (Used & Made)[];
  readonly pastes: (Pasted & Made)[];
  readonly rings: (RingRenewed & Made)[];
  readonly blownByMouth: Made[];
  readonly temporaryFixes: (TemporaryFix & Made)[];
  readonly photos: (PhotoTaken & Made)[];
  readonly rescopes: (Rescoped & Made)[];
  /** when the loop became the one that was wanted */
  readonly rebuilds: Made[];
}

export interface Coolant {
  readonly productId: string;
  readonly productName: string;
  readonly lotId: string | null;
  readonly lot: string | null;
  /** how it is poured, as the shelf had it at that moment; missing in entries before it was kept */
  readonly product?: {
    readonly form: 'ready-mix' | 'concentrate';
    /** volume share of concentrate that it is mixed to */
    readonly targetFraction: number | null;
    /** share of full strength that its sheet asks for at least */
    readonly leastFraction: number | null;
  };
}

/** The coolant inside, measured. */
export interface CoolantRead {
  /** volume share of concentrate; null: not read */
  readonly strength: number | null;
  readonly ph: number | null;
}

/** A dry test that was begun anew. */
export interface PastDryTest {
  readonly testNumber: number;
  readonly verdict: 'pass' | 'fail' | 'not-yet';
  /** mbar·L/s; null before a slope could be told */
  readonly leakMbarLs: number | null;
  readonly readings: number;
  /** why it was begun anew */
  readonly ended: string;
}

export interface DryReading {
  readonly gaugeKpa: number;
  readonly tempC: number;
  /** kPa; where a barometer stands beside the gauge */
  readonly atmosphereKpa?: number;
}

/** The gauge at parts that are joined outside the case; kPa, °C. */
export interface GroupReading {
  readonly parts: readonly string[];
  readonly gaugeKpa: number;
  readonly tempC: number;
}

export interface PartTest {
  readonly part: string;
  readonly tight: boolean;
  readonly how: string;
  readonly leftMl: number;
}

/** g, and mL inside by the book when it was weighed first */
export interface Weights {
  before: { readonly massG: number; readonly insideMl: number | null; readonly insideSdMl: number } | null;
  after: { readonly massG: number } | null;
}
