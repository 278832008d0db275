import type { CauseKey } from '../../workshop/due-dates/facts.js';
import type { InspectKind } from './items.js';

export const DEPOSITS = ['none', 'film', 'layer', 'blocked'] as const;
export type Deposit = (typeof DEPOSITS)[number];
export const SURFACES = ['sound', 'plating-loss', 'pitted', 'cracked'] as const;
export type Surface = (typeof SURFACES)[number];
export const SEALS = ['supple', 'flattened', 'cut'] as const;
export type Seal = (typeof SEALS)[number];
export const TOUCHES = ['smooth', 'gritty'] as const;
export type Touch = (typeof TOUCHES)[number];
export const WALLS = ['clear', 'coloured', 'hard'] as const;
export type Wall = (typeof WALLS)[number];
export const SIDES = ['inlet', 'outlet'] as const;
export type Side = (typeof SIDES)[number];
export const FINISHES = ['nickel', 'chrome', 'black', 'bare', 'plastic'] as const;
export type Finish = (typeof FINISHES)[number];

/** What was seen on one part. null: there is no such thing on it, or it was not looked at. */
export interface ItemFindings {
  readonly deposit: Deposit;
  readonly surface: Surface;
  /** O-ring or gasket */
  readonly seal: Seal | null;
  /** thread, fins, jet plate, impeller: whatever this part has that can wear */
  readonly worn: boolean;
  /** with the finger, after cleaning */
  readonly touch: Touch | null;
  /** tubes only: as the wall looks where it was cut */
  readonly wall: Wall | null;
  readonly text: string;
  /** of a plug or cap: on which side of its part; what stands at the inlet is eaten first. Missing: neither, or not noted */
  readonly side?: Side | null;
  /** of a plug or cap: what its surface is; missing: not noted */
  readonly finish?: Finish | null;
}

/** A part with nothing to it. */
export const SOUND: ItemFindings = { deposit: 'none', surface: 'sound', seal: null, worn: false, touch: null, wall: null, text: '' };

export type Grade = 'reuse' | 'watch' | 'replace' | 'clean-again';

export interface Graded {
  readonly grade: Grade;
  /** the rule that decided, in words */
  readonly rule: string;
  /** the O-ring goes whatever becomes of the part */
  readonly renewSeal: boolean;
}

/** What of a part can wear, as the sheet asks for it. */
export const WEARS: Readonly<Record<InspectKind, string | null>> = {
  radiator: 'Fins bent or threads worn',
  block: 'Fins or jet plate damaged',
  pump: 'Impeller chipped or bearing loud',
  reservoir: 'Threads worn or glass chipped',
  meter: 'Wheel stiff or chipped',
  plug: 'Thread worn',
  run: null,
  'rigid-run': 'End chipped or scored',
  other: 'Threads worn',
};
export const HAS_SEAL: Readonly<Record<InspectKind, boolean>> = {
  radiator: false,
  block: true,
  pump: true,
  reservoir: true,
  meter: true,
  plug: true,
  run: false,
  'rigid-run': true,
  other: true,
};
export const isTube = (kind: InspectKind): boolean => kind === 'run' || kind === 'rigid-run';

type Rule = readonly [when: (kind: InspectKind, seen: ItemFindings) => boolean, grade: Grade, words: string];

/**
 * The first rule that holds decides. Order: what can fail under pressure, then what cleaning cannot mend, then what can
 * still be cleaned. Plating loss does not come off, deposit does: the difference decides reuse.
 */
const RULES: readonly Rule[] = [
  [(_, { surface }) => surface === 'cracked', 'replace', 'a crack opens under pressure or heat: never reused'],
  [(_, { surface }) => surface === 'pitted', 'replace', 'anything corroded is replaced: pits go on growing'],
  [(kind, { surface }) => kind === 'plug' && surface === 'plating-loss', 'replace', 'the coating is eaten: bare metal meets the coolant'],
  [(kind, { worn }) => kind === 'pump' && worn, 'replace', 'a chipped impeller or a loud bearing does not last to the next service'],
  [(_, { worn }) => worn, 'replace', 'worn threads, fins or edges no longer seal or carry flow'],
  [(kind, { wall }) => kind === 'run' && (wall === 'hard' || wall === 'coloured'), 'replace', 'tube that turned hard or beige is replaced'],
  [(_, { touch, deposit }) => touch === 'gritty' && deposit !== 'none', 'clean-again', 'gritty to the finger: deposit is still on it'],
  [(_, { deposit, touch }) => deposit === 'blocked' && touch === null, 'clean-again', 'blocked: clean it, then feel whether it is smooth'],
  [(_, { deposit, touch }) => deposit === 'layer' && touch === null, 'clean-again', 'a layer: clean it, then feel whether it is smooth'],
  [
    (kind, { deposit, touch }) => (kind === 'radiator' || kind === 'block') && deposit === 'film' && touch === null,
    'clean-again',
    'a film on fins costs flow and heat: clean it, then feel whether it is smooth',
  ],
  [(_, { surface }) => surface === 'plating-loss', 'watch', 'plating is gone but the metal is smooth: look again at the next service'],
  [(_, { deposit }) => deposit === 'blocked', 'watch', 'was blocked: compare its flow at the next service'],
  [(_, { deposit, touch }) => deposit === 'film' && touch === null, 'reuse', 'a film that wipes off'],
  [() => true, 'reuse', 'sound, smooth and clear'],
];

/** Reuse, watch, replace or clean again, with the rule that says so. */
export function gradeItem(kind: InspectKind, seen: ItemFindings): Graded {
  const [, grade, rule] = RULES.find(([when]) => when(kind, seen)) as Rule;
  return { grade, rule, renewSeal: seen.seal === 'flattened' || seen.seal === 'cut' };
}

export const GRADE_WORDS: Readonly<Record<Grade, string>> = {
  reuse: 'use again',
  watch: 'watch',
  replace: 'replace',
  'clean-again': 'clean again',
};

/** Whether a sheet asks for a cause: something grew, fell out or was eaten. */
export const asksForCause = (sheet: readonly ItemFindings[]): boolean =>
  sheet.some(({ deposit, surface }) => deposit === 'layer' || deposit === 'blocked' || surface !== 'sound');

/** Suspected causes. A suspicion, never a verdict. */
export const CAUSES: Readonly<Record<CauseKey, string>> = {
  fallout: 'particles fell out of the coolant',
  'plasticiser-bloom': 'plasticiser came out of the tube',
  growth: 'something grew',
  corrosion: 'metals were attacked',
  'plating-loss': 'plating came off',
  colour: 'its colour left that of the retained sample',
  debris: 'debris from new parts or from manufacture',
  mixing: 'two liquids that do not go together',
  unknown: 'not known',
};
