import { waterAt } from '../../machine/liquids/fluids.js';

export const EXPANSION = {
  /** °C that levels are compared at */
  referenceC: 25,
  /** 1/K that a glycol's share adds to water's own expansion, per unit of volume fraction (general estimate for 20–50 °C) */
  perGlycolFraction: 6e-4,
} as const;

export interface LevelReading {
  /** mm, as read */
  readonly levelMm: number;
  readonly coolantC: number;
  /** liquid in the whole loop */
  readonly volumeMl: number;
  /** free cross-section of the reservoir, and of a filled fill tube above it: together they take the expansion */
  readonly areaMm2: number;
  /** volume fraction of glycol, 0 for water */
  readonly glycolFraction: number;
}

/** mL by which the loop's liquid is larger at `coolantC` than at the reference temperature. */
export function expansionMl({ coolantC, volumeMl, glycolFraction }: Omit<LevelReading, 'levelMm' | 'areaMm2'>): number {
  const water = waterAt(EXPANSION.referenceC).densityKgM3 / waterAt(coolantC).densityKgM3 - 1;
  const glycol = EXPANSION.perGlycolFraction * glycolFraction * (coolantC - EXPANSION.referenceC);
  return volumeMl * (water + glycol);
}

/**
 * The level as it would stand at 25 °C, in mm: a warm loop stands higher without holding more.
 * The parts' own expansion is left out; it takes up less than a tenth.
 */
export const levelAtReferenceMm = (reading: LevelReading): number => reading.levelMm - (1000 * expansionMl(reading)) / reading.areaMm2;
