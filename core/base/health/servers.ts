/** The servers on a database, as a lead sees them. */
export interface ServersAnswer {
  /** the one that answers */
  readonly here: string;
  readonly servers: readonly Server[];
}

/** One of the servers on a database, as the others know it. */
export interface Server {
  readonly name: string;
  readonly version: string;
  /** where devices reach its own broker; null: it has none */
  readonly broker: string | null;
  /** it is the one that speaks with the instruments */
  readonly speaks: boolean;
  /** s since it was heard of */
  readonly silentS: number;
  /** for longer than between two signs of life */
  readonly isSilent: boolean;
}
