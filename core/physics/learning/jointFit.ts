import { cholesky, type Cholesky } from '../../base/numerics/cholesky.js';
import type { Guess } from './defaults.js';

/** What one fill says: Σ weights·unknowns = value ± √variance. */
export interface Equation {
  /** by the unknown's place */
  readonly weights: readonly (readonly [number, number])[];
  readonly value: number;
  readonly variance: number;
}

/** All unknowns after all equations. */
export interface JointFit {
  /** a weighted sum of unknowns */
  sumOf(weights: Equation['weights']): Guess;
  /** how far all equations together are from what was thought before: chi², with as many degrees of freedom as equations */
  readonly chi2: number;
  /** ln of how likely they are, but for a constant */
  readonly logLikelihood: number;
  /** by equation: standard deviations between it and what all the others say of it */
  surprises(): number[];
}

/**
 * Linear-Gaussian update of unknowns with independent guesses by equations with independent errors, all at once:
 * (diag(1/σ²) + Σ w·wᵀ/r²)·x = Σ w·y/r². Chi² and likelihood by the matrix determinant lemma, what is left out one at a
 * time by its leverage (Cook & Weisberg 1982).
 * @returns null where the numbers allow none: a guess or an error without spread
 */
export function fitJointly(guesses: readonly Guess[], equations: readonly Equation[]): JointFit | null {
  const size = guesses.length;
  const rows = guesses.map(({ sd }, at) => {
    const row = new Float64Array(size);
    row[at] = 1 / sd ** 2;
    return row;
  });
  const right = new Float64Array(size);
  // about what was thought before
  const offs = equations.map(({ weights, value }) =>
    weights.reduce((rest, [at, weight]) => rest - weight * (guesses[at] as Guess).mean, value),
  );
  let sum2 = 0;
  let logDet = guesses.reduce((sum, { sd }) => sum + 2 * Math.log(sd), 0);
  equations.forEach(({ weights, variance }, index) => {
    const off = offs[index] as number;
    sum2 += off ** 2 / variance;
    logDet += Math.log(variance);
    for (const [a, weightA] of weights) {
      right[a] = (right[a] as number) + (weightA * off) / variance;
      const row = rows[a] as Float64Array;
      for (const [b, weightB] of weights) row[b] = (row[b] as number) + (weightA * weightB) / variance;
    }
  });
  const factor = size > 0 ? cholesky(rows) : null;
  if (!factor) return null;
  const moved = factor.solve(right);
  const chi2 = sum2 - moved.reduce((sum, value, at) => sum + value * (right[at] as number), 0);
  return {
    sumOf: (weights) => ({
      mean: weights.reduce((sum, [at, weight]) => sum + weight * ((guesses[at] as Guess).mean + (moved[at] as number)), 0),
      sd: Math.sqrt(spread(factor, size, weights)),
    }),
    chi2,
    logLikelihood: -0.5 * (chi2 + logDet + factor.logDet),
    surprises: () =>
      equations.map(({ weights, variance }, index) => {
        const left = weights.reduce((rest, [at, weight]) => rest - weight * (moved[at] as number), offs[index] as number);
        const alone = Math.max(1e-9, 1 - spread(factor, size, weights) / variance);
        return left / Math.sqrt(variance * alone);
      }),
  };
}

/** wᵀ·A⁻¹·w */
function spread(factor: Cholesky, size: number, weights: Equation['weights']): number {
  const vector = new Float64Array(size);
  weights.forEach(([at, weight]) => (vector[at] = weight));
  const solved = factor.solve(vector);
  return weights.reduce((sum, [at, weight]) => sum + weight * (solved[at] as number), 0);
}

/** Chi² that is exceeded in one of twenty cases (Wilson & Hilferty 1931). */
export const chi2In20 = (degrees: number): number =>
  degrees === 0 ? 0 : degrees * (1 - 2 / (9 * degrees) + 1.6449 * Math.sqrt(2 / (9 * degrees))) ** 3;
