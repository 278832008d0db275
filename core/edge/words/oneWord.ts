/**
 * One word for one thing. What a word of the left is, is said by the word of the right wherever somebody reads it; `not` names where the
 * word means something else. The list is checked against every screen and every sentence (oneWord.test.ts).
 */
export interface OneWord {
  readonly say: string;
  readonly never: RegExp;
  /** sentences in which it is another thing */
  readonly not?: RegExp;
}

export const ONE_WORD: readonly OneWord[] = [
  { say: 'air test', never: /\bdry tests?\b/i },
  { say: 'jug', never: /\bbowls?\b/i },
  { say: 'air inlet', never: /\bbleed ports?\b/i },
  { say: 'machine', never: /\bsystems?\b/i },
  { say: 'owner', never: /\bcustomers?\b/i },
  { say: 'waiting list', never: /\bbacklog\b/i },
  { say: 'as a table, as a file', never: /\bas (CSV|JSON)\b/i },
  { say: 'retained sample', never: /\bsample bottle\b/i },
  { say: 'time is up', never: /\btime('s| has) (out|run out|elapsed)\b/i },
  { say: 'air (gas only in what a machine computes)', never: /\bgas\b/i, not: /poisonous|volume_ml|return port|flow sweeps|^gas \$/ },
];
