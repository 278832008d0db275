/** What a run waits for, off its bench, with its liquid, its open ends and its parts lying where they lie. */
export const WAIT_FOR = { parts: 'parts', owner: 'the owner', overnight: 'tomorrow', other: 'something else' } as const;
export type WaitFor = keyof typeof WAIT_FOR;
export const WAIT_FOR_KEYS = Object.keys(WAIT_FOR) as WaitFor[];

export interface Waiting {
  readonly for: WaitFor;
  /** the part, the question, the reason; may be empty overnight */
  readonly what: string;
  /** day on which somebody looks again */
  readonly until: string;
  /** where the machine and what came off it lie */
  readonly lies: string;
}

/** … and the instant since when. */
export type WaitsSince = Waiting & { readonly since: string };
