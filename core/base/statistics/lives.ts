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

/** Lives that were watched and had not ended just before this age. */
export const atRiskAt = (lives: readonly Life[], months: number): number =>
  lives.filter((life) => life.entryMonths < months && months <= life.months).length;

export const eventsAt = (lives: readonly Life[], months: number): number =>
  lives.filter((life) => life.event && life.months === months).length;

/** Share that lasts, at each age of a failure: the product-limit estimate (Kaplan & Meier 1958), with delayed entries. */
export function kaplanMeier(lives: readonly Life[]): SurvivalStep[] {
  let survival = 1;
  return eventAges(lives).map((months) => {
    const [atRisk, events] = [atRiskAt(lives, months), eventsAt(lives, months)];
    survival *= 1 - events / atRisk;
    return { months, atRisk, events, survival };
  });
}
