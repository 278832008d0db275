/** How long something lasted, or lasted at least. */
export interface Life {
  /** age at its end, above 0 */
  readonly months: number;
  /** it failed at that age; false: it was still good when it ended, or it still lasts */
  readonly event: boolean;
  /** known alive only from this age on (left truncation); below `months` */
  readonly entryMonths: number;
}

export interface SurvivalStep {
  readonly months: number;
  readonly atRisk: number;
  readonly events: number;
  readonly survival: number;
}

/** Ages at which something failed, rising. */
export const eventAges = (lives: readonly Life[]): number[] =>
  [...new Set(lives.filter(({ event }) => event).map(({ months }) => months))].sort((a, b) => a - b);

const rising = (numbers: readonly number[]): Float64Array => Float64Array.from(numbers).sort();

/** How many of rising numbers lie below one. */
export function below(numbers: ArrayLike<number>, limit: number): number {
  let [from, to] = [0, numbers.length];
  while (from < to) {
    const middle = (from + to) >> 1;
    if ((numbers[middle] as number) < limit) from = middle + 1;
    else to = middle;
  }
  return from;
}

/** Counts of lives by age: sorted once, so that a hundred thousand of them are asked as quickly as ten. */
export class Watched {
  private readonly entries: Float64Array;
  private readonly ends: Float64Array;
  private readonly failed: Float64Array;

  constructor(lives: readonly Life[]) {
    this.entries = rising(lives.map(({ entryMonths }) => entryMonths));
    this.ends = rising(lives.map(({ months }) => months));
    this.failed = rising(lives.flatMap(({ months, event }) => (event ? [months] : [])));
  }

  /** Lives that were watched and had not ended just before this age. */
  atRisk(months: number): number {
    // whoever ended before this age entered before it as well
    return below(this.entries, months) - below(this.ends, months);
  }

  /** Lives that failed at this very age. */
  events(months: number): number {
    let count = 0;
    for (let at = below(this.failed, months); this.failed[at] === months; at += 1) count += 1;
    return count;
  }
}

/** Share that lasts, at each age of a failure: the product-limit estimate (Kaplan & Meier 1958), with delayed entries. */
export function kaplanMeier(lives: readonly Life[]): SurvivalStep[] {
  let survival = 1;
  const watched = new Watched(lives);
  return eventAges(lives).map((months) => {
    const [atRisk, events] = [watched.atRisk(months), watched.events(months)];
    survival *= 1 - events / atRisk;
    return { months, atRisk, events, survival };
  });
}
