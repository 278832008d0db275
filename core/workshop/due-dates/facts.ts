import type { CoolantClass } from '../../machine/liquids/classes.js';
import type { ThetaLimit } from '../../physics/condition/series.js';
import type { JobKind } from '../job-kinds/kinds.js';
import type { OwedKind } from './owed.js';
import type { UsageSource } from '../usage/usage.js';
import type { HotSeason } from './season.js';

/**
 * Why something falls due, how it ended, what was found: codes with their values, as they are stored. Words are made at the
 * edge, in `core/edge/words`. Days are calendar days; `said` holds what people wrote, or an older program's words.
 */
export interface Said {
  readonly why: 'said';
  readonly text: string;
}

/** Suspected causes. A suspicion, never a verdict. */
export const CAUSE_KEYS = [
  'fallout',
  'plasticiser-bloom',
  'growth',
  'corrosion',
  'plating-loss',
  'colour',
  'debris',
  'mixing',
  'unknown',
] as const;
export type CauseKey = (typeof CAUSE_KEYS)[number];

/** Limits of use that a temporary fix comes with. */
export const USE_LIMIT_KEYS = ['do-not-move', 'level-daily', 'no-load', 'not-unattended'] as const;
export type UseLimit = (typeof USE_LIMIT_KEYS)[number];

/** How far what a suspension holds up has fallen out. */
export const FALLOUT_STAGE_KEYS = ['comes-back', 'stays', 'bits'] as const;
export type FalloutStage = (typeof FALLOUT_STAGE_KEYS)[number];

/** Where a machine stands: decides how fast fins and filters fill. */
export const DUST_PLACE_KEYS = ['clean', 'usual', 'dusty'] as const;
export type DustPlace = (typeof DUST_PLACE_KEYS)[number];

/** What keeps "clean" from being claimed after a service. */
export type LooseEnd =
  | Said
  | { readonly why: 'particles-stayed' }
  | { readonly why: 'step-passed-over'; readonly step: string }
  | { readonly why: 'cleaner-too-long'; readonly cleaner: string }
  | { readonly why: 'radiator-not-soaked'; readonly name: string }
  | { readonly why: 'blown-by-mouth' }
  | { readonly why: 'put-back'; readonly percent: number; readonly days: number };

export type PolicyScopeCode = 'workshop' | 'owner' | 'system';
export type PolicyCode = 'six-months' | 'twelve-months' | 'product-life';

/** Life shortened by warm coolant. */
export interface Warmth {
  readonly months: number;
  readonly coolantC: number;
  readonly source: UsageSource | null;
}

/** Running hours shortened by warm coolant; missing: they were not, or an older program counted them so. */
export interface WarmHours {
  readonly hours: number;
  readonly coolantC: number;
  readonly source: UsageSource | null;
}

export type DateReason =
  | Said
  | { readonly why: 'policy'; readonly scope: PolicyScopeCode; readonly policy: PolicyCode }
  | { readonly why: 'class-life'; readonly coolantClass: CoolantClass; readonly months: number; readonly warm: Warmth | null }
  | { readonly why: 'sheet-life'; readonly product: string; readonly months: number; readonly warm: Warmth | null }
  | {
      readonly why: 'class-hours';
      readonly coolantClass: CoolantClass;
      readonly hours: number;
      readonly perDay: number;
      readonly source: UsageSource;
      readonly warm?: WarmHours;
    }
  | {
      readonly why: 'sheet-hours';
      readonly product: string;
      readonly hours: number;
      readonly perDay: number;
      readonly source: UsageSource;
      readonly warm?: WarmHours;
    }
  /** a suspension at rest: it may stand so long, and is stirred so often */
  | { readonly why: 'standing'; readonly coolantClass: CoolantClass; readonly days: number }
  | { readonly why: 'stirring'; readonly since: string; readonly coolantClass: CoolantClass; readonly days: number }
  | { readonly why: 'fallout'; readonly stage: FalloutStage; readonly on: string }
  | { readonly why: 'seals' | 'tube'; readonly since: string; readonly years: number }
  | { readonly why: 'findings'; readonly because: readonly LooseEnd[]; readonly percent: number }
  | { readonly why: 'season'; readonly season: HotSeason; readonly first: DateReason }
  | { readonly why: 'settling'; readonly fromDays: number; readonly toDays: number }
  | {
      readonly why: 'dust';
      readonly since: string;
      readonly place: DustPlace;
      readonly months: number;
      /** brought forward to before these months; null: it was not */
      readonly season: HotSeason | null;
    }
  | { readonly why: 'paste'; readonly first: PasteLayer; readonly layers: readonly PasteLayer[] }
  | ({ readonly why: 'not-settled'; readonly on: string } & LevelFound)
  | { readonly why: 'put-off'; readonly until: string; readonly said: string; readonly first: DateReason }
  | { readonly why: 'overtaken'; readonly agreed: string; readonly first: DateReason }
  | { readonly why: 'early-look'; readonly because: readonly LooseEnd[] }
  | {
      readonly why: 'temporary';
      readonly what: string;
      readonly awaits: string;
      readonly limits: readonly UseLimit[];
      readonly then?: JobKind;
    }
  | { readonly why: 'came-filled'; readonly product: string | null; readonly since: string | null; readonly months: number | null }
  /** by whoever looked after it before; `sooner` is what its clocks say where that is earlier */
  | { readonly why: 'promised'; readonly on: string; readonly sooner: { readonly on: string; readonly reason: DateReason } | null }
  /** readings of a part rise toward their limit, or stand over it */
  | {
      readonly why: 'condition';
      readonly part: string;
      /** K/W a year */
      readonly perYear: number;
      readonly limit: ThetaLimit;
      /** 95 %: the earlier and the later day; null: not within what can be told */
      readonly lowOn: string | null;
      readonly highOn: string | null;
      readonly isOver: boolean;
    }
  /** by how long fills lasted in this workshop, beside what their sheet or class says */
  | ({ readonly why: 'learned-life'; readonly product: string; readonly coolantClass: CoolantClass } & LearnedMonths)
  | { readonly why: 'owed'; readonly kind: OwedKind; readonly what: string }
  | { readonly why: 'same-lot'; readonly what: string; readonly isCoolant: boolean; readonly cause: CauseKey };

/** What lies between a chip and its block, and since when. */
export interface PasteLayer {
  /** of the drawing */
  readonly item: string;
  readonly name: string;
  readonly medium: 'paste' | 'pad' | 'metal';
  /** as its tube calls it; empty: nobody wrote it down */
  readonly product: string;
  readonly since: string;
}

/** How long fills lasted here: as a due date takes it. */
export interface LearnedMonths {
  /** whose fills: of this very product, or of its whole class */
  readonly of: 'product' | 'class';
  /** months at which `risk` of them have failed, with the lower end of the interval (95 % two-sided) */
  readonly months: number;
  readonly lowMonths: number;
  readonly risk: number;
  readonly fills: number;
  readonly failed: number;
}

/** The day on which a machine's readings call it in. */
export interface ConditionClock {
  readonly on: string;
  /** day of the newest reading that it rests on */
  readonly lastOn: string;
  readonly reason: Extract<DateReason, { why: 'condition' }>;
}

/** How an item ended. */
/** What a settling check found: mm against the mark, or, where no mark shows a level, mL that went in. */
export interface LevelFound {
  readonly levelChangeMm: number | null;
  /** missing: it was not topped up */
  readonly toppedUpMl?: number;
  readonly note: string;
}

export type Outcome =
  | Said
  | { readonly why: 'filled-anew' | 'topped-up' | 'in-service' | 'machine-retired' }
  | { readonly why: 'done'; readonly note: string }
  | ({ readonly why: 'settled' } & LevelFound)
  | { readonly why: 'loop-ended'; readonly kind: JobKind };

/** What was found on a machine; `item` is the part of the drawing, where it was one. */
export type Finding =
  | Said
  | { readonly why: 'item'; readonly item?: string; readonly name: string; readonly rule: string; readonly text: string }
  | { readonly why: 'cause'; readonly cause: CauseKey; readonly item?: string; readonly name: string | null; readonly text: string }
  | { readonly why: 'leak'; readonly item?: string; readonly place: string; readonly cause: string | null; readonly text: string }
  | { readonly why: 'same-lot'; readonly what: string; readonly cause: CauseKey };

/** Reads what is stored; whatever an older program wrote as words stays words. */
const readFact =
  <T extends { readonly why: string }>() =>
  (stored: unknown): T =>
    typeof (stored as T | null)?.why === 'string'
      ? (stored as T)
      : ({
          why: 'said',
          text: typeof stored === 'string' ? stored : stored === null || stored === undefined ? '' : JSON.stringify(stored),
        } as never);

export const readReason = readFact<DateReason>();
export const readOutcome = readFact<Outcome>();
export const readFinding = readFact<Finding>();

/** The reason before anybody put it off, however often that was. */
export const firstReason = (reason: DateReason): DateReason => (reason.why === 'put-off' ? firstReason(reason.first) : reason);
