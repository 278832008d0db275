import { LEAK_LIMITS, type LeakLimitKey } from './defaults.js';

/** How leaks are looked for. Practitioners disagree; every school is supported and says what it leaves open. */
export const LEAK_SCHOOLS = {
  'dry-then-wet': {
    label: 'Air first, then coolant',
    consequence: 'Slowest. A hole is found while nothing can get wet.',
    dry: true,
    wet: true,
    parts: false,
    openedOnly: false,
  },
  'wet-only': {
    label: 'Coolant only',
    consequence: 'No gauge needed. The first hole is found by a drop on a towel.',
    dry: false,
    wet: true,
    parts: false,
    openedOnly: false,
  },
  'dry-only': {
    label: 'Air only',
    consequence: 'No long run with coolant. A joint that only weeps when warm is not seen.',
    dry: true,
    wet: false,
    parts: false,
    openedOnly: false,
  },
  'part-first': {
    label: 'Parts alone on the bench, then coolant',
    consequence: 'A part hurt in shipping shows outside the machine. Joints made in the case are first tested by the coolant.',
    dry: false,
    wet: true,
    parts: true,
    openedOnly: false,
  },
  'opened-joints': {
    label: 'Only the joints that were opened, short and wet',
    consequence: 'For small service work. Nothing is said about joints that were not touched.',
    dry: false,
    wet: true,
    parts: false,
    openedOnly: true,
  },
} as const;
export type LeakSchool = keyof typeof LEAK_SCHOOLS;
export const LEAK_SCHOOL_KEYS = Object.keys(LEAK_SCHOOLS) as LeakSchool[];

/** How long only the pump runs, with coolant inside. */
export const WET_SCHOOLS = {
  'ten-minutes': { label: '10 minutes', seconds: 600, consequence: 'A bench check: finds what runs, not what seeps.' },
  hours: { label: '4 hours', seconds: 4 * 3600, consequence: 'Finds what seeps at room temperature.' },
  day: { label: '24 hours', seconds: 24 * 3600, consequence: 'The cautious default; most of the air comes home as well.' },
} as const;
export type WetSchool = keyof typeof WET_SCHOOLS;
export const WET_SCHOOL_KEYS = Object.keys(WET_SCHOOLS) as WetSchool[];

export interface Schools {
  readonly leak: LeakSchool;
  readonly wet: WetSchool;
  readonly limit: LeakLimitKey;
  /** kPa; step of the workshop's gauge that can be read */
  readonly gaugeResolutionKpa: number;
}

export const LIMIT_KEYS = Object.keys(LEAK_LIMITS) as LeakLimitKey[];

export const DEFAULT_SCHOOLS: Schools = { leak: 'dry-then-wet', wet: 'day', limit: 'screen', gaugeResolutionKpa: 0.1 };
