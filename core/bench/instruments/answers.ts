import type { InstrumentKind } from './kinds.js';

export interface InstrumentFace {
  readonly kind: InstrumentKind;
  readonly online: boolean;
  readonly simulated: boolean;
  readonly resolution: number | null;
  readonly problem: string | null;
}

export interface BenchFace {
  /** a table where a simulated bench is played */
  readonly forPractice: boolean;
  readonly id: string;
  readonly name: string;
  readonly hasAccess: boolean;
  readonly instruments: (InstrumentFace & { readonly last: { value: number; at: string } | null })[];
}

/** Where devices connect. */
export interface Brokers {
  /** null: nobody listens at the moment */
  readonly url: string | null;
  /** where to try when that one goes */
  readonly others: readonly string[];
}
export interface Broker extends Brokers {
  readonly embedded: boolean;
}

export interface InstrumentsAnswer {
  readonly broker: Broker;
  readonly benches: BenchFace[];
}

/** Number, kind, value, ISO instant of a reading, as the server numbered it. */
export type ReadingRow = readonly [id: number, kind: InstrumentKind, value: number, at: string];

/** Readings behind a number; `more`: ask again behind the last of them. */
export interface ReadingsAnswer {
  readonly readings: ReadingRow[];
  readonly more: boolean;
}

/** How a bench's instruments sign in; the secret is shown once. */
export interface AccessAnswer extends Brokers {
  readonly name: string;
  readonly secret: string;
}
