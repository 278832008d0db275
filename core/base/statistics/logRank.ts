import { chiSquareAbove } from './chiSquare.js';
import { cholesky, type Cholesky } from '../numerics/cholesky.js';
import { eventAges, Watched, type Life } from './lives.js';

export interface LifeGroup {
  readonly name: string;
  readonly lives: readonly Life[];
}

export interface LogRank {
  readonly chi2: number;
  readonly df: number;
  /** chance of groups so unlike where all last alike */
  readonly p: number;
  readonly groups: readonly { readonly name: string; readonly observed: number; readonly expected: number }[];
}

/** a variance below this share of one event says nothing of a group */
const NO_VARIANCE = 1e-9;

/**
 * Whether groups last alike: the log-rank test (Mantel 1966; Peto & Peto 1972) with the hypergeometric variance, delayed entries at risk
 * only from their entry on. A group that nobody of was at risk when something failed decides nothing and costs no degree of freedom.
 */
export function logRank(groups: readonly LifeGroup[]): LogRank {
  const size = groups.length;
  const observed = groups.map(({ lives }) => lives.filter(({ event }) => event).length);
  const expected = new Array<number>(size).fill(0);
  const variance = Array.from({ length: size }, () => new Array<number>(size).fill(0));
  const all = groups.flatMap(({ lives }) => lives);
  const watched = groups.map(({ lives }) => new Watched(lives));
  for (const months of eventAges(all)) {
    const atRisk = watched.map((group) => group.atRisk(months));
    const n = atRisk.reduce((sum, each) => sum + each, 0);
    const d = watched.reduce((sum, group) => sum + group.events(months), 0);
    // the last of all says nothing of the groups
    const spread = n > 1 ? (d * (n - d)) / (n - 1) : 0;
    atRisk.forEach((own, row) => {
      expected[row] = (expected[row] as number) + (d * own) / n;
      atRisk.forEach((other, column) => {
        const share = (own / n) * ((row === column ? 1 : 0) - other / n);
        (variance[row] as number[])[column] = ((variance[row] as number[])[column] as number) + spread * share;
      });
    });
  }
  const kept = independent(variance);
  const off = kept.map((index) => (observed[index] as number) - (expected[index] as number));
  const weights = kept.length === 0 ? null : factored(variance, kept)?.solve(off);
  const chi2 = weights ? off.reduce((sum, each, index) => sum + each * (weights[index] as number), 0) : 0;
  const df = kept.length;
  return {
    chi2,
    df,
    p: df === 0 ? 1 : chiSquareAbove(chi2, df),
    groups: groups.map(({ name }, index) => ({ name, observed: observed[index] as number, expected: expected[index] as number })),
  };
}

const factored = (variance: readonly number[][], kept: readonly number[]): Cholesky | null =>
  cholesky(kept.map((row) => kept.map((column) => (variance[row] as number[])[column] as number)));

/** Groups whose differences do not follow from those before them: of groups that were at risk together the last always does. */
function independent(variance: readonly number[][]): number[] {
  const kept: number[] = [];
  let logDet = 0;
  variance.forEach((row, index) => {
    if ((row[index] as number) <= NO_VARIANCE) return;
    const more = factored(variance, [...kept, index]);
    if (!more || Math.exp(more.logDet - logDet) <= NO_VARIANCE * (row[index] as number)) return;
    kept.push(index);
    logDet = more.logDet;
  });
  return kept;
}
