/** Parts whose bag was kept: make and lot, so that they are found when one of their lot fails elsewhere. */
export interface FittedLot {
  readonly id: string;
  readonly loopId: string;
  readonly itemId: string | null;
  readonly make: string;
  readonly lot: string;
  readonly fittedOn: string;
}

/** Another machine that holds what is suspected. */
export interface Mate {
  readonly systemId: string;
  readonly systemName: string;
  readonly ownerName: string;
  readonly phone: string | null;
  readonly since: string;
}

/** Other machines that hold what is suspected. */
export interface MatesAnswer {
  /** what is suspected, with its lot; null: its lot is on no record */
  readonly what: string | null;
  readonly mates: readonly Mate[];
}
