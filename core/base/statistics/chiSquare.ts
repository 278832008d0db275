/** ln Γ(x) for x > 0, relative error below 2e-10 (Lanczos 1964, the six coefficients of Press et al., Numerical Recipes, 1992, section 6.1). */
export function logGamma(x: number): number {
  const base = x + 5.5;
  const series = LANCZOS.reduce((sum, coefficient, index) => sum + coefficient / (x + 1 + index), 1.000000000190015);
  return (x + 0.5) * Math.log(base) - base + Math.log((2.5066282746310005 * series) / x);
}
const LANCZOS = [
  76.18009172947146, -86.50532032941677, 24.01409824083091, -1.231739572450155, 0.1208650973866179e-2, -0.5395239384953e-5,
] as const;

const MOST_TERMS = 500;
const ENOUGH = 1e-14;
/** keeps a fraction's denominators away from zero (Lentz's method) */
const TINY = 1e-300;

/**
 * Share of a chi-square distribution above `chi2`: Q(df/2, chi2/2), the regularised upper incomplete gamma function, by its series below
 * and by its continued fraction above the mean (Abramowitz & Stegun 6.5.29 and 6.5.31).
 * @param df degrees of freedom, above 0
 */
export function chiSquareAbove(chi2: number, df: number): number {
  const a = df / 2;
  const x = chi2 / 2;
  if (x <= 0) return 1;
  const factor = Math.exp(a * Math.log(x) - x - logGamma(a));
  if (x < a + 1) {
    let term = 1 / a;
    let sum = term;
    for (let n = 1; n < MOST_TERMS && Math.abs(term) > Math.abs(sum) * ENOUGH; n += 1) {
      term *= x / (a + n);
      sum += term;
    }
    return Math.max(0, 1 - factor * sum);
  }
  let b = x + 1 - a;
  let c = 1 / TINY;
  let d = 1 / b;
  let fraction = d;
  for (let n = 1; n < MOST_TERMS; n += 1) {
    const an = -n * (n - a);
    b += 2;
    d = 1 / (an * d + b || TINY);
    c = b + an / c || TINY;
    const step = c * d;
    fraction *= step;
    if (Math.abs(step - 1) < ENOUGH) break;
  }
  return factor * fraction;
}
