import { describe, expect, it } from 'vitest';
import { solveDense } from '../../base/numerics/dense.js';
import { cholesky } from '../../base/numerics/cholesky.js';
import { seededRandom } from '../../base/random/random.js';
import { fitJointly, type Equation, type JointFit } from './jointFit.js';

describe('a joint fit', () => {
  it('is the usual update for one unknown: the mean of guess and readings, weighed by their variances', () => {
    const readings = [104, 98, 101];
    const fit = fitJointly(
      [{ mean: 80, sd: 20 }],
      readings.map((value) => ({ weights: [[0, 1]], value, variance: 25 })),
    ) as JointFit;
    const weight = 1 / 400 + 3 / 25;
    expect(fit.sumOf([[0, 1]]).mean).toBeCloseTo((80 / 400 + (104 + 98 + 101) / 25) / weight, 9);
    expect(fit.sumOf([[0, 1]]).sd).toBeCloseTo(1 / Math.sqrt(weight), 9);
  });

  it('tests each reading against what the others say, as if it had been left out', () => {
    const random = seededRandom(7);
    const guesses = [40, 120, 200].map((mean) => ({ mean, sd: 0.2 * mean }));
    const equations: Equation[] = Array.from({ length: 6 }, () => ({
      weights: guesses.map((_, at) => [at, Math.floor(random.between(0, 3))] as const),
      value: random.between(200, 700),
      variance: 300,
    }));
    const all = fitJointly(guesses, equations) as JointFit;
    equations.forEach((equation, at) => {
      const others = fitJointly(
        guesses,
        equations.filter((_, other) => other !== at),
      ) as JointFit;
      const said = others.sumOf(equation.weights);
      expect(all.surprises()[at]).toBeCloseTo((equation.value - said.mean) / Math.hypot(said.sd, Math.sqrt(300)), 8);
    });
  });

  it('has the chi² and the likelihood of the readings together (covariance written out)', () => {
    const guesses = [{ mean: 10, sd: 2 }, { mean: 5, sd: 1 }]; // prettier-ignore
    const equations: Equation[] = [{ weights: [[0, 1], [1, 1]], value: 19, variance: 1 }, { weights: [[0, 1], [1, -1]], value: 2, variance: 4 }]; // prettier-ignore
    // S = [[4+1+1, 4-1], [4-1, 4+1+4]], y = [4, -3]
    const det = 6 * 9 - 9;
    const chi2 = (4 * 4 * 9 - 2 * 4 * -3 * 3 + 9 * 6) / det;
    const fit = fitJointly(guesses, equations) as JointFit;
    expect(fit.chi2).toBeCloseTo(chi2, 9);
    expect(fit.logLikelihood).toBeCloseTo(-0.5 * (chi2 + Math.log(det)), 9);
  });

  it('answers null where a guess has no spread', () => {
    expect(fitJointly([], [])).toBeNull();
    expect(cholesky([[1, 2], [2, 1]])).toBeNull(); // prettier-ignore
  });
});

it('a factored matrix solves as elimination does', () => {
  const random = seededRandom(3);
  const half = Array.from({ length: 6 }, () => Array.from({ length: 6 }, () => random.normal()));
  const rows = half.map((a) => half.map((b) => a.reduce((sum, value, at) => sum + value * (b[at] as number), 0)));
  const right = Array.from({ length: 6 }, () => random.normal());
  const plain = solveDense(rows.map((row) => Float64Array.from(row)), Float64Array.from(right)) as Float64Array; // prettier-ignore
  cholesky(rows)?.solve(right).forEach((value, at) => expect(value).toBeCloseTo(plain[at] as number, 7)); // prettier-ignore
});
