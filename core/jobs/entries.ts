import type { Clarity, RinseLiquid } from '../flushing/defaults.js';
import type { CauseKey, ItemFindings } from '../inspection/grade.js';
import type { LotOnBag } from '../lots/schema.js';
import type { JobKind } from './kinds.js';
import type { ReadingSource } from '../commissioning/events.js';

export const SUSPECTS = ['none', 'coolant-lot', 'part'] as const;
export type Suspect = (typeof SUSPECTS)[number];
export const SWAP_ACTIONS = ['renewed', 'replaced', 'removed', 'fitted'] as const;
export type SwapAction = (typeof SWAP_ACTIONS)[number];

/** Limits of use that a temporary fix comes with. */
export const USE_LIMITS = {
  'do-not-move': 'do not move the machine',
  'level-daily': 'look at the level every day',
  'no-load': 'no long loads',
  'not-unattended': 'do not leave it running alone',
} as const;
export type UseLimit = keyof typeof USE_LIMITS;
export const USE_LIMIT_KEYS = Object.keys(USE_LIMITS) as UseLimit[];

/** What happens in a service and never in a commissioning. Each entry names the step the hands are at. */
export type ServiceEntry =
  | {
      readonly type: 'drained';
      readonly step: string;
      readonly volumeMl: number;
      readonly how: 'jug' | 'scale';
      /** the waste container it went into; null where it is kept or not yet poured away */
      readonly wasteId: string | null;
      readonly source?: ReadingSource;
    }
  | { readonly type: 'lost'; readonly step: string; readonly volumeMl: number; readonly text: string }
  | { readonly type: 'rinse'; readonly step: string; readonly liquid: RinseLiquid; readonly volumeMl: number }
  | { readonly type: 'water'; readonly step: string; readonly ph: number | null; readonly clarity: Clarity }
  | {
      readonly type: 'soak';
      readonly step: string;
      readonly on: boolean;
      readonly cleaner: string;
      /** min; from the cleaner's own sheet */
      readonly mostMinutes: number;
    }
  | { readonly type: 'inspected'; readonly step: string; readonly item: string; readonly findings: ItemFindings }
  | {
      readonly type: 'cause';
      readonly step: string;
      readonly cause: CauseKey;
      readonly suspect: Suspect;
      /** the part that is suspected, where one is */
      readonly item: string | null;
      /** something stayed inside: "clean" is not claimed */
      readonly particlesStayed: boolean;
      readonly text: string;
    }
  | {
      readonly type: 'swapped';
      readonly step: string;
      readonly item: string;
      readonly action: SwapAction;
      /** what went in, or where the removed part lies now */
      readonly text: string;
      /** mL inside a part that was taken out full and capped */
      readonly heldMl: number;
      /** what stood on the bag of what went in; missing: nobody kept it */
      readonly bag?: LotOnBag;
    }
  | { readonly type: 'used'; readonly step: string; readonly itemId: string; readonly itemName: string; readonly count: number }
  | {
      readonly type: 'temporary-fix';
      readonly step: string;
      readonly what: string;
      readonly awaits: string;
      /** day by which the final fix must be in */
      readonly until: string;
      readonly limits: readonly UseLimit[];
    }
  | { readonly type: 'photo'; readonly step: string; readonly photoId: string; readonly caption: string }
  | { readonly type: 'rescoped'; readonly step: string; readonly kind: JobKind; readonly reason: string };

export type ServiceEntryType = ServiceEntry['type'];
export const SERVICE_ENTRY_TYPES: readonly ServiceEntryType[] = [
  'drained',
  'lost',
  'rinse',
  'water',
  'soak',
  'inspected',
  'cause',
  'swapped',
  'used',
  'temporary-fix',
  'photo',
  'rescoped',
];
export const isServiceEntry = (body: { readonly type: string }): body is ServiceEntry =>
  (SERVICE_ENTRY_TYPES as readonly string[]).includes(body.type);
