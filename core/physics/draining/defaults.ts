import type { StandingName } from '../../machine/loop-file/orientation.js';

/** What a plan of moves is worth (workshop practice, not physics). */
export const ADVICE = {
  /** mL; an opening that gets less out is not worth its mess */
  leastOpeningMl: 5,
  /** mL; a turn that gets less out is not worth lifting the machine */
  leastTurnMl: 25,
  /** share of what is still inside that a turn costs as well: a full machine is heavy, and wets what leaks */
  turnedFullShare: 0.05,
  /** mL; a joint undone runs at two ends, wants towels, a new ring and a test: it must get out so much more */
  jointPriceMl: 100,
  /** turns in one plan: after three nobody knows any more which cap is open */
  mostTurns: 3,
  /** most openings that give air in one stand */
  mostAirs: 2,
  /** mL that may leave at an opening that is called an air inlet: drops, as in the contract's list of spills */
  mostSpillMl: 1,
  /** mm; a plan is searched on cells so long, ends and bends kept, and the best so many are played on the contract's 10 mm */
  searchCellMm: 80,
  played: 6,
} as const;

/** How far a search looks: plans side by side, and pairs of stand and drain that are looked at closely in each. */
export interface SearchWidth {
  readonly beam: number;
  readonly looksClosely: number;
  /** the best plans of each length that a joint is tried behind */
  readonly joints: number;
}

/** Nodes of usual loops (100 to 600), for which a search takes some tenths of a second; larger ones are searched less widely. */
const USUAL_NODES = 600;

export const searchWidth = (nodes: number): SearchWidth =>
  nodes <= USUAL_NODES ? { beam: 48, looksClosely: 12, joints: 12 } : { beam: 2, looksClosely: 4, joints: 1 };

/** Which stands a workshop brings a machine into. */
export interface DrainPolicy {
  /** besides upright and upside down; none: too heavy to be turned */
  readonly mayTurn: readonly StandingName[];
  /** mL more than every other plan that standing it on its head must get out; null: never */
  readonly headLeastMl: number | null;
  /** whether a joint may be undone for it */
  readonly joints: boolean;
}

/** One policy for every screen: on each side, and on its head only where that saves a rinse. */
export const DRAIN_POLICY: DrainPolicy = {
  mayTurn: ['on-back', 'on-face', 'on-window-side', 'on-blind-side'],
  headLeastMl: 100,
  joints: true,
};

/** How a workshop drains, as its lead says it. */
export interface DrainHabits {
  /** machines are laid on their sides where that gets more out; false: they stay as they stand */
  readonly turns: boolean;
  /** mL more than every other plan that a machine on its head must give; null: never on its head */
  readonly headLeastMl: number | null;
  /** a joint may be undone where no opening gives as much */
  readonly joints: boolean;
}

export const DRAIN_HABITS: DrainHabits = { turns: true, headLeastMl: DRAIN_POLICY.headLeastMl, joints: DRAIN_POLICY.joints };

/** A machine that is never laid down is not stood on its head either. */
export const policyOf = ({ turns, headLeastMl, joints }: DrainHabits): DrainPolicy => ({
  mayTurn: turns ? DRAIN_POLICY.mayTurn : [],
  headLeastMl: turns ? headLeastMl : null,
  joints,
});

/** Of a machine that is not turned, and of a rinse that is let out as it stands. */
export const UPRIGHT_ONLY: DrainPolicy = { mayTurn: [], headLeastMl: null, joints: false };
