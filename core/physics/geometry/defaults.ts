/** Tolerances of the geometric network (fixed by the contract, so that two programs agree). */
export const GEOMETRY = {
  /** mm; two heights closer than this count as level. Larger would let liquid climb; smaller would hang on rounding */
  levelMm: 1,
  /** mm; the longest piece of tube that counts as one height */
  cellMm: 10,
  /** mm; from this bore up, gas and liquid pass each other inside the tube */
  wideBoreMm: 13,
} as const;
