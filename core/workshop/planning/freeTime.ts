import type { Span } from './problem.js';

/** First index whose span ends after an instant; spans are sorted and do not overlap. */
export function firstEndingAfter(spans: readonly Span[], at: number): number {
  let low = 0;
  let high = spans.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((spans[middle] as Span).to > at) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** Earliest start of a duration at or after an instant, wholly inside one shift and beside what is taken. null: never. */
export function earliestIn(shifts: readonly Span[], taken: readonly Span[], from: number, durationMs: number): number | null {
  let at = from;
  let next = firstEndingAfter(taken, at);
  for (let shift = firstEndingAfter(shifts, at); shift < shifts.length; shift += 1) {
    const { from: opens, to: closes } = shifts[shift] as Span;
    at = Math.max(at, opens);
    while (at + durationMs <= closes) {
      while (next < taken.length && (taken[next] as Span).to <= at) next += 1;
      const blocked = taken[next];
      if (!blocked || blocked.from >= at + durationMs) return at;
      at = blocked.to;
    }
  }
  return null;
}

/** Latest start of a duration that ends at or before an instant, wholly inside one shift and beside what is taken. null: never. */
export function latestIn(shifts: readonly Span[], taken: readonly Span[], until: number, durationMs: number): number | null {
  for (let shift = shifts.length - 1; shift >= 0; shift -= 1) {
    const { from: opens, to: closes } = shifts[shift] as Span;
    let end = Math.min(until, closes);
    while (end - durationMs >= opens) {
      const start = end - durationMs;
      const blocked = taken.find((span) => span.from < end && span.to > start);
      if (!blocked) return start;
      end = blocked.from;
    }
  }
  return null;
}

/** Puts a span among sorted ones. An empty one takes no room. */
export function take(taken: Span[], span: Span): void {
  if (span.to > span.from) taken.splice(firstEndingAfter(taken, span.from), 0, span);
}

export function release(taken: Span[], span: Span): void {
  const index = taken.findIndex(({ from, to }) => from === span.from && to === span.to);
  if (index >= 0) taken.splice(index, 1);
}
