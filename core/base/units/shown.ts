import { reading, type Reading } from './reading.js';

/** Units in which things are stored and computed. */
export type StoredUnit = 'mL' | 'kPa' | '°C' | 'K' | 'mm' | 'L/h';
export const STORED_UNITS: readonly StoredUnit[] = ['mL', 'kPa', '°C', 'K', 'mm', 'L/h'];
export const isStoredUnit = (unit: string): unit is StoredUnit => (STORED_UNITS as readonly string[]).includes(unit);

export interface Scale {
  readonly unit: string;
  /** shown = (stored − zero) × factor */
  readonly factor: number;
  readonly zero: number;
  /** digits behind the point, beside those that the stored unit would have */
  readonly more: number;
}

const scale = (unit: string, factor = 1, more = 0, zero = 0): Scale => ({ unit, factor, more, zero });

/**
 * Exact by definition: the US gallon is 231 in³ and holds 128 fl oz, the inch is 25.4 mm, the pound-force per square inch follows from the
 * pound of 0.45359237 kg and the standard fall of 9.80665 m/s² (NIST SP 811, appendix B).
 */
const ML_PER_FL_OZ = (231 * 2.54 ** 3) / 128;
const L_PER_GAL = (231 * 2.54 ** 3) / 1000;
const KPA_PER_PSI = (0.45359237 * 9.80665) / 0.0254 ** 2 / 1000;

const SCALES: { readonly [U in StoredUnit]: (way: Reading) => Scale } = {
  mL: ({ volume }) => (volume === 'mL' ? scale('mL') : scale('fl oz', 1 / ML_PER_FL_OZ, 1)),
  kPa: ({ pressure }) =>
    pressure === 'kPa' ? scale('kPa') : pressure === 'bar' ? scale('bar', 0.01, 2) : scale('psi', 1 / KPA_PER_PSI, 1),
  '°C': ({ temperature }) => (temperature === '°C' ? scale('°C') : scale('°F', 1.8, 0, -32 / 1.8)),
  // a difference of temperatures
  K: ({ temperature }) => (temperature === '°C' ? scale('K') : scale('°F', 1.8)),
  mm: ({ length }) => (length === 'mm' ? scale('mm') : scale('in', 1 / 25.4, 2)),
  'L/h': ({ flow }) => (flow === 'L/h' ? scale('L/h') : scale('gal/h', 1 / L_PER_GAL, 1)),
};

/** mL from which a volume is read in the larger unit: below it a jug resolves more than the larger unit shows. */
export const LARGE_FROM = { mL: 10_000, 'fl oz': 128 * ML_PER_FL_OZ } as const;
/** the larger unit of volumes */
export const largeVolume = (): Scale => (reading().volume === 'mL' ? scale('L', 0.001, 1) : scale('gal', 1 / (L_PER_GAL * 1000), 2));

export const scaleOf = (unit: StoredUnit): Scale => SCALES[unit](reading());
/** As the reader names it. */
export const unitName = (unit: string): string => (isStoredUnit(unit) ? scaleOf(unit).unit : unit);
/** A stored number as the reader counts it. */
export function shownIn(unit: StoredUnit, stored: number): number {
  const { factor, zero } = scaleOf(unit);
  return (stored - zero) * factor;
}
/** What a reader typed, as it is stored: exact to a thousandth, which no instrument here resolves. */
export function storedFrom(unit: StoredUnit, shown: number): number {
  const { factor, zero } = scaleOf(unit);
  return factor === 1 && zero === 0 ? shown : Number((shown / factor + zero).toFixed(4));
}
