/** What a plan of moves is worth (workshop practice, not physics). */
export const ADVICE = {
  /** mL; an opening that gets less out is not worth its mess */
  leastOpeningMl: 5,
  /** mL; a turn that gets less out is not worth lifting the machine */
  leastTurnMl: 25,
  /** turns in one plan: after three nobody knows any more which cap is open */
  mostTurns: 3,
  /** most openings that give air in one stand */
  mostAirs: 2,
  /** mL that may leave at an opening that is called an air inlet: drops, as in the contract's list of spills */
  mostSpillMl: 1,
  /** standings looked at closely after a rough bound */
  looksClosely: 3,
} as const;
