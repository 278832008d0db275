/** Something to look at before the loop is built. `todo` says what to do about it. */
export interface LoopFinding {
  readonly code: FindingCode;
  /** `stop`: do not build it so; `look`: trouble later; `note`: good to know */
  readonly weight: 'stop' | 'look' | 'note';
  /** id of the part or tube it concerns, or null for the loop */
  readonly part: string | null;
  readonly text: string;
  readonly todo: string;
}

export type FindingCode =
  | 'no-reservoir'
  | 'no-pump'
  | 'open-end'
  | 'unplugged-port'
  | 'two-on-one-port'
  | 'fed-backwards'
  | 'pump-above-reservoir'
  | 'pump-attitude'
  | 'no-drain'
  | 'no-air-inlet'
  | 'no-fill-port'
  | 'one-bore'
  | 'wrong-fitting'
  | 'panel-does-not-close'
  | 'does-not-fit'
  | 'fit-to-look-at'
  | 'joint-under-load'
  | 'kink'
  | 'mixed-metals'
  | 'no-pressure-rating';
