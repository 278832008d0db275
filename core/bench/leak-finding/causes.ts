import { say } from '../../base/words/say.js';
import { isInsidePart, isSeal } from '../../machine/seals/places.js';
import { ranked, type Ranked } from '../../base/numerics/rankedCauses.js';

export const LEAK_WHEN = ['first-pour', 'pump-start', 'under-pressure', 'after-minutes', 'after-hours', 'warm', 'after-moving'] as const;
export type LeakWhen = (typeof LEAK_WHEN)[number];
export const LEAK_AMOUNT = ['gush', 'drip', 'seep'] as const;
export type LeakAmount = (typeof LEAK_AMOUNT)[number];

/** Kinds of place a drop shows at. */
export type LeakPlace = 'joint' | 'reservoir' | 'radiator' | 'block' | 'pump' | 'port' | 'other';

interface CauseRule {
  readonly label: string;
  /** what to look at or do next, cheapest first */
  readonly nextCheck: string;
  /** relative frequency at each kind of place, before anything is seen (general estimate from bench practice) */
  readonly at: Partial<Readonly<Record<LeakPlace, number>>>;
  /** how it shows: relative likelihoods; what is not named gets `UNUSUAL` */
  readonly when: Partial<Readonly<Record<LeakWhen, number>>>;
  readonly amount: Partial<Readonly<Record<LeakAmount, number>>>;
  /** other places of the same machine that have what this one had: they are looked at before it is signed off */
  readonly sisters?: LeakPlace;
  /** it lies in what came out of a bag: places that had the same bag are looked at */
  readonly fromBag?: true;
}

/** likelihood of a sign that a cause does not usually give */
const UNUSUAL = 0.04;

export const LEAK_CAUSES = {
  'base-seal': {
    label: 'Reservoir base seal missing, pinched or reused',
    nextCheck: 'Supply off, drain below the base, unscrew it and look at the ring all round; renew it.',
    at: { reservoir: 6, pump: 3 },
    when: { 'first-pour': 0.6, 'pump-start': 0.2, 'under-pressure': 0.15 },
    amount: { gush: 0.6, drip: 0.3, seep: 0.1 },
    fromBag: true,
  },
  'screw-through-tube': {
    label: 'A screw too long has split a cooling tube of the radiator',
    nextCheck: 'Take the fan screws out one by one: the wet one names the tube. The radiator is scrap.',
    at: { radiator: 5 },
    when: { 'first-pour': 0.35, 'pump-start': 0.4, 'under-pressure': 0.2 },
    amount: { gush: 0.65, drip: 0.25, seep: 0.1 },
    sisters: 'radiator',
    fromBag: true,
  },
  'tube-not-seated': {
    label: 'Tube not pushed home, or the nut not slid on first',
    nextCheck: 'Tug it, then undo, look how deep the mark of the barb sits, seat it fully and tighten by hand.',
    at: { joint: 6 },
    when: { 'pump-start': 0.4, 'under-pressure': 0.3, 'first-pour': 0.15, 'after-moving': 0.1 },
    amount: { drip: 0.6, gush: 0.25, seep: 0.15 },
  },
  'cut-not-square': {
    label: 'Tube cut askew',
    nextCheck: 'Undo and look at the end: trim it square, mind that the run still reaches.',
    at: { joint: 3 },
    when: { 'pump-start': 0.3, 'under-pressure': 0.35, 'after-minutes': 0.2, warm: 0.1 },
    amount: { drip: 0.55, seep: 0.4 },
    sisters: 'joint',
  },
  'fitting-ring': {
    label: 'Ring of the fitting missing, pinched or dry',
    nextCheck: 'Undo the fitting from the port and look at its ring; renew, a trace of coolant on it, finger-tight.',
    at: { joint: 3, port: 4, radiator: 2, block: 2, pump: 3, reservoir: 2 },
    when: { 'first-pour': 0.2, 'pump-start': 0.3, 'under-pressure': 0.25, 'after-minutes': 0.15 },
    amount: { drip: 0.6, seep: 0.3, gush: 0.1 },
    fromBag: true,
  },
  'loose-closure': {
    label: 'Plug or cap not tight',
    nextCheck: 'Wipe, turn it finger-tight, dry towel under it, look again after five minutes.',
    at: { port: 4, reservoir: 2, radiator: 1.5, block: 1 },
    when: { 'first-pour': 0.3, 'pump-start': 0.3, 'under-pressure': 0.2, 'after-moving': 0.1 },
    amount: { drip: 0.6, seep: 0.3, gush: 0.1 },
  },
  'uneven-gasket': {
    label: 'Block gasket unevenly pressed',
    nextCheck: 'Loosen all screws of the block and tighten them in a cross pattern, a half turn each time.',
    at: { block: 5, pump: 2 },
    when: { 'after-minutes': 0.3, 'after-hours': 0.25, warm: 0.25, 'under-pressure': 0.1 },
    amount: { seep: 0.7, drip: 0.3 },
    sisters: 'block',
  },
  'strained-joint': {
    label: 'Joint carries weight or side load',
    nextCheck: 'Support the run or the branch, re-route it, then seat the joint again.',
    at: { joint: 2, port: 1 },
    when: { 'after-moving': 0.5, warm: 0.2, 'after-hours': 0.2 },
    amount: { drip: 0.5, seep: 0.45 },
  },
  'cracked-part': {
    label: 'Crack in acrylic, glass or a housing',
    nextCheck: 'Dry it, look along it with a lamp from the side; a crack ends at a screw or a port. Replace the part.',
    at: { reservoir: 2, block: 1.5, pump: 1, radiator: 1, other: 2 },
    when: { 'under-pressure': 0.3, 'after-moving': 0.2, warm: 0.2, 'pump-start': 0.15 },
    amount: { drip: 0.4, seep: 0.4, gush: 0.2 },
    fromBag: true,
  },
  'soft-when-warm': {
    label: 'Tube softens and the joint opens when warm',
    nextCheck: 'Tighten by hand while warm, mark the nut, look again cold; renew tube that has gone hard or glossy.',
    at: { joint: 1.5 },
    when: { warm: 0.7, 'after-hours': 0.25 },
    amount: { seep: 0.7, drip: 0.3 },
    fromBag: true,
  },
  overflow: {
    label: 'Overflow at the fill port: no leak',
    nextCheck: 'Wipe everything, cap on, towel under the port: dry after five minutes of pump means it was poured over.',
    at: { port: 4, reservoir: 3, other: 1 },
    when: { 'first-pour': 0.7, 'pump-start': 0.25 },
    amount: { gush: 0.4, drip: 0.5 },
  },
} as const satisfies Record<string, CauseRule>;

export type LeakCause = keyof typeof LEAK_CAUSES;

/** Which places share a cause: screws out of the same bag, ends cut in the same go, blocks pressed by the same hand. null: none. */
export const sistersOf = (cause: string): LeakPlace | null =>
  Object.hasOwn(LEAK_CAUSES, cause) ? ((LEAK_CAUSES[cause as LeakCause] as CauseRule).sisters ?? null) : null;

/** Whether a cause lies in what came out of a bag: screws, rings, tube, a part of one batch. */
export const comesFromBag = (cause: string): boolean =>
  Object.hasOwn(LEAK_CAUSES, cause) && (LEAK_CAUSES[cause as LeakCause] as CauseRule).fromBag === true;

/** A cause in words; what some older program called it, as it stands. */
export const leakCauseWords = (cause: string): string =>
  Object.hasOwn(LEAK_CAUSES, cause) ? say(LEAK_CAUSES[cause as LeakCause].label) : cause;

export const LEAK_CAUSE_KEYS = Object.keys(LEAK_CAUSES) as LeakCause[];

export interface LeakSymptoms {
  readonly place: LeakPlace;
  readonly when: LeakWhen;
  readonly amount: LeakAmount;
}

export type RankedCause = Ranked<LeakCause>;

/** Confirmed causes as the workshop's runs tell them, by cause. */
export type ConfirmedCauses = Readonly<Partial<Record<LeakCause, number>>>;

/** The same, by the kind of place it was found at. */
export type ConfirmedByPlace = Readonly<Partial<Record<LeakPlace, ConfirmedCauses>>>;

/** Ranked by frequency at the place × likelihood of when × of how much. */
export const rankCauses = ({ place, when, amount }: LeakSymptoms, confirmed: ConfirmedCauses = {}): RankedCause[] =>
  ranked(
    LEAK_CAUSE_KEYS.map((cause) => {
      const rule: CauseRule = LEAK_CAUSES[cause];
      return {
        cause,
        rule,
        frequency: rule.at[place] ?? UNUSUAL,
        findsCount: (rule.at[place] ?? 0) > 0,
        likelihood: (rule.when[when] ?? UNUSUAL) * (rule.amount[amount] ?? UNUSUAL),
      };
    }),
    confirmed,
  );

/** Which kind of place a leak is at: a ring inside a part leaks as that part does. @param kind of the part with this id, or that the place is inside; null: it is none */
export const leakPlaceOf = (at: string, kind: string | null): LeakPlace => (isSeal(at) && !isInsidePart(at) ? 'port' : placeOf(kind));

/** Which kind of place a part or a run is, for the rules. */
export function placeOf(kind: string | null): LeakPlace {
  if (kind === null) return 'joint';
  return kind === 'reservoir' || kind === 'radiator' || kind === 'block' || kind === 'pump'
    ? kind
    : ['valve', 'junction', 'meter', 'filter', 'coupling', 'terminal'].includes(kind)
      ? 'port'
      : 'other';
}
