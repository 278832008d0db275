/** The normal distribution, as far into its tails as a likelihood may look. */

const HALF_LOG_2PI = 0.5 * Math.log(2 * Math.PI);

/**
 * Natural logarithm of the complementary error function for x ≥ 0, relative error of erfc below 1.2e-7 however large x is
 * (Chebyshev fit of Press et al., Numerical Recipes, 1992, section 6.2).
 */
function logErfc(x: number): number {
  const t = 1 / (1 + 0.5 * x);
  const poly =
    -1.26551223 +
    t *
      (1.00002368 +
        t *
          (0.37409196 +
            t *
              (0.09678418 +
                t * (-0.18628806 + t * (0.27886807 + t * (-1.13520398 + t * (1.48851587 + t * (-0.82215223 + t * 0.17087277))))))));
  return Math.log(t) - x * x + poly;
}

/** ln of the share above z ≥ 0 */
const logAbove = (z: number): number => logErfc(z / Math.SQRT2) - Math.LN2;

/** ln φ(z) */
export const logDensity = (z: number): number => -0.5 * z * z - HALF_LOG_2PI;

/** ln of the share between two standard scores, exact far out in either tail. Before: low < high. */
export function logBetween(low: number, high: number): number {
  // mirrored, so that the nearer bound lies above the mean or the mean between both
  const [near, far] = Math.abs(low) <= Math.abs(high) ? [low, high] : [-high, -low];
  if (near >= 0) {
    const a = logAbove(near);
    return a + Math.log1p(-Math.exp(Math.max(-745, logAbove(far) - a)));
  }
  // the mean lies between: both tails away from the whole
  return Math.log1p(-Math.exp(logAbove(-near)) - Math.exp(logAbove(far)));
}
