import type { After, StepKind, StepTrait } from './procedure.js';

/**
 * A procedure as data: what the lead writes, before a loop's own parts, joints and figures are filled in. Texts may hold
 * places such as `{holdMinutes}`; `EACH` lists stand for as many checks as the loop has parts of a kind.
 */
export const EACH = {
  flushable: 'every radiator and block',
  plugs: 'every plug, cap and valve, looked at',
  joints: 'every tube, in flow order',
  closures: 'every port without a tube',
  pulled: 'every connector that is pulled',
  back: 'every connector that was pulled',
  rounds: 'every look at the joints',
  towels: 'the towel under every tube, plug and base',
  stands: 'every stand of the advised drain',
  cards: 'every card with a block that comes off, stripped and put together again',
  'cards-apart': 'every card with a block, as it is taken apart',
  'cards-together': 'every card with a block, as it is put together again',
  changes: 'everything between the loop inside and the one that is wanted',
  'bottle-turns': 'every turn of a fill from a bottle',
  reverse: 'every radiator, both ways',
  soaked: 'every other part that meets coolant',
  alone: 'every pump with its reservoir, tested out of the case',
  'alone-return': 'what comes back while a unit runs on its own',
  assembly: 'every part, as it is put together',
  'rinsed-out': 'every part that comes out, rinsed and run out',
} as const;
export type EachKey = keyof typeof EACH;

export interface OwnCheck {
  readonly id: string;
  readonly text: string;
  readonly group?: string;
  readonly mayNotApply?: boolean;
  readonly beforePower?: boolean;
  /** cannot be ticked before; a standard check's is always its own, whatever a lead's version says */
  readonly after?: After;
  /** one look with the other checks of its group that say so */
  readonly together?: boolean;
  /** only where the air test is part of the school */
  readonly onlyDry?: boolean;
  /** only in loops with a reservoir, or only in those without; missing: in both */
  readonly where?: 'reservoir' | 'no-reservoir';
  /** said instead of `text` where the loop has no reservoir */
  readonly textWithoutReservoir?: string;
}

/** Lists that are one look at many places. What guards people or power is ticked one by one: the pulled list, its way back, a drain's stands. */
export const ONE_LOOK: Readonly<Partial<Record<EachKey, string>>> = {
  flushable: 'Flushed, each until nothing comes',
  joints: 'Both joints of each tube made, gripped and pulled',
  closures: 'Plugs, caps and valves of every open port',
  plugs: 'Every plug, cap and valve dry and seated',
  'rinsed-out': 'Every part rinsed with distilled water, run out',
  rounds: 'Dry at every joint, towels dry',
  towels: 'Towels out and read, no spot on any',
};

export interface EachCheck {
  readonly each: EachKey;
  readonly group?: string;
}

export type CheckTemplate = OwnCheck | EachCheck;

export interface TimerTemplate {
  readonly id: string;
  readonly label: string;
  /** minutes, or `wet` for the school's length */
  readonly minutes: number | 'wet';
}

export interface StepTemplate {
  readonly id: string;
  readonly kind: StepKind;
  /** what it does beyond its kind; a standard step's is always its own, whatever a lead's version says */
  readonly does?: readonly StepTrait[];
  readonly title: string;
  readonly lead: string;
  /** said instead of `lead` where the loop has no reservoir */
  readonly leadWithoutReservoir?: string;
  readonly cautions: readonly string[];
  /** instead of `cautions` where the loop has no reservoir */
  readonly cautionsWithoutReservoir?: readonly string[];
  readonly checks: readonly CheckTemplate[];
  readonly timers: readonly TimerTemplate[];
}

export interface ProcedureTemplate {
  readonly steps: readonly StepTemplate[];
}

/** What `{…}` in a text may stand for. */
export const PLACEHOLDERS = [
  'parts',
  'plugs',
  'bottles',
  'gaugeKpa',
  'mostKpa',
  'holdMinutes',
  'wetSpan',
  'joints',
  'cushionMl',
  'screws',
  'fans',
  'rings',
  'tightest',
  'scrap',
] as const;
export type Placeholder = (typeof PLACEHOLDERS)[number];

export const isEach = (check: CheckTemplate): check is EachCheck => 'each' in check;

/** Steps that protect people or electronics: a template without them is refused. */
export const isProtected = ({ kind, does }: StepTemplate): boolean =>
  ['fill', 'power', 'sign-off'].includes(kind) ||
  (does ?? []).some((each) => ['closes', 'isolates', 'cuts-mains', 'changes-loop'].includes(each));
export const PROTECTED_EACH: readonly EachKey[] = ['joints', 'closures', 'pulled', 'back', 'towels', 'stands', 'reverse', 'changes'];
