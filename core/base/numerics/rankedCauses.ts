/** how many finds the rule set's own frequencies are worth beside the workshop's */
const RULE_SET_WEIGHT = 12;

/** One cause with what speaks for it. */
export interface Suspect<Cause extends string> {
  readonly cause: Cause;
  readonly rule: { readonly label: string; readonly nextCheck: string };
  /** how often, beside the others: any scale */
  readonly frequency: number;
  /** whether the workshop's finds speak for it here */
  readonly findsCount: boolean;
  /** how well the signs fit it: any scale */
  readonly likelihood: number;
}

export interface Ranked<Cause extends string> {
  readonly cause: Cause;
  readonly label: string;
  /** what to look at or do next */
  readonly nextCheck: string;
  /** 0 … 1 */
  readonly probability: number;
  /** times this workshop found it */
  readonly confirmed: number;
}

/**
 * Causes by probability (naive Bayes: frequency × likelihood). The workshop's confirmed finds update the frequencies as a
 * Dirichlet prior would: rule set worth `RULE_SET_WEIGHT` finds.
 */
export function ranked<Cause extends string>(
  suspects: readonly Suspect<Cause>[],
  confirmed: Readonly<Partial<Record<Cause, number>>>,
): Ranked<Cause>[] {
  const sum = suspects.reduce((total, { frequency }) => total + frequency, 0);
  const weighed = suspects.map(({ cause, rule, frequency, findsCount, likelihood }) => {
    const finds = confirmed[cause] ?? 0;
    return { cause, rule, finds, weight: ((RULE_SET_WEIGHT * frequency) / sum + (findsCount ? finds : 0)) * likelihood };
  });
  const total = weighed.reduce((so, { weight }) => so + weight, 0);
  return weighed
    .map(({ cause, rule: { label, nextCheck }, finds, weight }) => ({
      cause,
      label,
      nextCheck,
      probability: weight / total,
      confirmed: finds,
    }))
    .sort((a, b) => b.probability - a.probability);
}
