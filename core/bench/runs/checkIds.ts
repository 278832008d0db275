/** Ids of checks that mean something to the rules. */

/** a connector that was pulled */
export const PULLED = 'pulled:';
/** loads that a lead may allow to stay on the supply; the board’s main plug never: the jumper goes where it was */
export const LOADS_MAY_STAY: readonly string[] = ['board-processor', 'card-power', 'drive-power'].map((id) => `${PULLED}${id}`);
/** the same one brought back */
export const BACK = 'back:';
/** the one check of the return to power that comes before any power: it may be ticked while electronics still dry */
export const SUPPLY_OFF_AGAIN = 'supply-off-again';
/** the level stays at the mark and liquid comes back */
export const LEVEL_STAYS = 'level-stays';
/** the air of a passed test was let out again */
export const AIR_OUT = 'air-out';
/** the machine on a scale, before the first pour and once the last one is in */
export const WEIGHED = { before: 'weighed-before', after: 'weighed-after' } as const;
/** fins and fans are free of dust */
export const FINS = 'fins';
/** blocks are on new paste */
export const PASTE_ON = 'paste';
