import { release } from './freeTime.js';
import type { PlanProblem, PlanStep, Span } from './problem.js';

/** Spans for which one of each kit is held, in any order; they may overlap. */
export type HeldKits = ReadonlyMap<string, Span[]>;

export const emptyKits = ({ kits }: PlanProblem): HeldKits => new Map((kits ?? []).map(({ id, taken }) => [id, [...(taken ?? [])]]));

const meets = (span: Span, from: number, to: number): boolean => span.from < to && span.to > from;

/** The most that are held at once between two instants. */
export function mostHeld(held: readonly Span[], from: number, to: number): number {
  const own = held.filter((span) => meets(span, from, to));
  // the most are held at the start of one of them
  return own.reduce((most, { from: at }) => {
    const instant = Math.max(at, from);
    return Math.max(most, own.filter((span) => span.from <= instant && span.to > instant).length);
  }, 0);
}

/** Whether one more of a kit is there between two instants. */
function hasOneMore(held: readonly Span[], count: number, from: number, to: number): boolean {
  let own = 0;
  for (const span of held) if (meets(span, from, to)) own += 1;
  // what meets it need not be held all at once
  return own < count || mostHeld(held, from, to) < count;
}

/** Earliest start at or after an instant at which one more of a kit is there for a whole duration. null: never. */
function earliestWith(held: readonly Span[], count: number, from: number, durationMs: number): number | null {
  if (durationMs <= 0) return from;
  if (count <= 0) return null;
  if (hasOneMore(held, count, from, from + durationMs)) return from;
  const ends = held
    .map(({ to }) => to)
    .filter((to) => to > from)
    .sort((a, b) => a - b);
  return ends.find((at) => hasOneMore(held, count, at, at + durationMs)) ?? null;
}

/** Earliest start at which every kit of a step is there. A kit that the workshop does not count is always there. */
export function kitsFrom({ kits }: PlanProblem, held: HeldKits, step: PlanStep, from: number): number | null {
  if (!kits || !step.kits?.length) return from;
  let at = from;
  for (let moved = true; moved;) {
    moved = false;
    for (const { id, count } of kits) {
      if (!step.kits.includes(id)) continue;
      const next = earliestWith(held.get(id) ?? [], count, at, step.durationMs);
      if (next === null) return null;
      if (next > at) {
        at = next;
        moved = true;
      }
    }
  }
  return at;
}

export function holdKits(held: HeldKits, step: PlanStep, span: Span): void {
  if (span.to > span.from) for (const id of step.kits ?? []) held.get(id)?.push(span);
}

export function letGoKits(held: HeldKits, step: PlanStep, span: Span): void {
  for (const id of step.kits ?? []) {
    const own = held.get(id);
    if (own) release(own, span);
  }
}
