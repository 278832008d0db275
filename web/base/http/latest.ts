/** One question among several of the same kind: only the last one asked counts. */
export interface Turn {
  readonly signal: AbortSignal;
  /** no later question was asked since */
  readonly counts: boolean;
}

/**
 * Late answers never win: a new question cancels the one before it, and an answer that comes all the same is not taken.
 */
export function latest(): { begin(): Turn; cancel(): void } {
  let own: AbortController | null = null;
  return {
    begin(): Turn {
      own?.abort();
      const mine = new AbortController();
      own = mine;
      return {
        signal: mine.signal,
        get counts() {
          return own === mine && !mine.signal.aborted;
        },
      };
    },
    cancel: () => own?.abort(),
  };
}
