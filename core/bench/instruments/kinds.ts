/** What can stand on a bench. One of each kind a bench; a second gauge is another bench's. */
export interface InstrumentKindFacts {
  readonly label: string;
  /** null: it says on or off */
  readonly unit: string | null;
  /** decimals a reading is shown with */
  readonly decimals: number;
  /** values outside are a broken sensor or a wrong unit, not a reading */
  readonly least: number;
  readonly most: number;
  /** s without a reading after which the last one no longer counts as live */
  readonly staleAfterS: number;
}

export const INSTRUMENT_KINDS = {
  gauge: { label: 'Pressure gauge', unit: 'kPa', decimals: 1, least: -100, most: 1000, staleAfterS: 10 },
  level: { label: 'Level', unit: 'mm', decimals: 1, least: -1000, most: 1000, staleAfterS: 10 },
  flow: { label: 'Flow', unit: 'L/h', decimals: 0, least: 0, most: 5000, staleAfterS: 10 },
  'coolant-temp': { label: 'Coolant', unit: '°C', decimals: 1, least: -30, most: 120, staleAfterS: 60 },
  'room-temp': { label: 'Room', unit: '°C', decimals: 1, least: -30, most: 60, staleAfterS: 60 },
  scale: { label: 'Scale', unit: 'g', decimals: 0, least: -50_000, most: 50_000, staleAfterS: 10 },
  supply: { label: 'Pump supply', unit: null, decimals: 0, least: 0, most: 1, staleAfterS: 30 },
} as const satisfies Record<string, InstrumentKindFacts>;

export type InstrumentKind = keyof typeof INSTRUMENT_KINDS;
export const INSTRUMENT_KEYS = Object.keys(INSTRUMENT_KINDS) as InstrumentKind[];
export const isInstrument = (word: string): word is InstrumentKind => Object.hasOwn(INSTRUMENT_KINDS, word);

/** A value as it travels and is kept. `value` of a supply is 1 or 0. */
export interface InstrumentReading {
  readonly kind: InstrumentKind;
  readonly value: number;
  /** ISO instant */
  readonly at: string;
}
