import { PART_KINDS, type PartKind } from '../../physics/diagnosis/sensors.js';

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
  /** it sits in the machine and goes with it: gone, it is no broken instrument of the bench */
  readonly ofMachine?: true;
}

export const INSTRUMENT_KINDS = {
  gauge: { label: 'Pressure gauge', unit: 'kPa', decimals: 1, least: -100, most: 1000, staleAfterS: 10 },
  level: { label: 'Level', unit: 'mm', decimals: 1, least: -1000, most: 1000, staleAfterS: 10 },
  flow: { label: 'Flow', unit: 'L/h', decimals: 0, least: 0, most: 5000, staleAfterS: 10 },
  'coolant-temp': { label: 'Coolant', unit: '°C', decimals: 1, least: -30, most: 120, staleAfterS: 60 },
  'room-temp': { label: 'Room', unit: '°C', decimals: 1, least: -30, most: 60, staleAfterS: 60 },
  scale: { label: 'Scale', unit: 'g', decimals: 0, least: -50_000, most: 50_000, staleAfterS: 10 },
  'processor-temp': { label: 'Processor', unit: '°C', decimals: 1, least: -30, most: 130, staleAfterS: 60, ofMachine: true },
  'processor-power': { label: 'Into the processor', unit: 'W', decimals: 0, least: 0, most: 3000, staleAfterS: 60, ofMachine: true },
  'graphics-temp': { label: 'Graphics', unit: '°C', decimals: 1, least: -30, most: 130, staleAfterS: 60, ofMachine: true },
  'graphics-power': { label: 'Into the graphics', unit: 'W', decimals: 0, least: 0, most: 3000, staleAfterS: 60, ofMachine: true },
  'memory-temp': { label: 'Memory', unit: '°C', decimals: 1, least: -30, most: 130, staleAfterS: 60, ofMachine: true },
  supply: { label: 'Pump supply', unit: null, decimals: 0, least: 0, most: 1, staleAfterS: 30 },
} as const satisfies Record<string, InstrumentKindFacts>;

export type InstrumentKind = keyof typeof INSTRUMENT_KINDS;
/** What a machine on the bench says of its own parts. */
export const PART_INSTRUMENTS = {
  processor: { temp: 'processor-temp', power: 'processor-power', sensor: 'processor package' },
  graphics: { temp: 'graphics-temp', power: 'graphics-power', sensor: 'graphics chip' },
  memory: { temp: 'memory-temp', power: null, sensor: 'graphics memory' },
} as const satisfies Record<PartKind, { temp: InstrumentKind; power: InstrumentKind | null; sensor: string }>;
/** The part that an instrument reads the temperature of; null: none. */
export const partReadBy = (instrument: InstrumentKind): PartKind | null =>
  PART_KINDS.find((kind) => PART_INSTRUMENTS[kind].temp === instrument) ?? null;

export const INSTRUMENT_KEYS = Object.keys(INSTRUMENT_KINDS) as InstrumentKind[];
export const isInstrument = (word: string): word is InstrumentKind => Object.hasOwn(INSTRUMENT_KINDS, word);

/** A value as it travels and is kept. `value` of a supply is 1 or 0. */
export interface InstrumentReading {
  readonly kind: InstrumentKind;
  readonly value: number;
  /** ISO instant */
  readonly at: string;
}
