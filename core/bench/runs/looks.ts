import type { CheckItem } from './procedure.js';
import type { CheckState } from './state.js';

/** One look at one kind of thing, at one place or at many: what a hand ticks with one touch. */
export interface Look {
  /** id of its first check */
  readonly id: string;
  readonly group: string;
  /** what is looked at, where there are several places; null: a check of its own */
  readonly together: string | null;
  readonly items: readonly CheckItem[];
}

/** Checks as looks, in their order. Those that guard people are never put together: nothing says so of them in the template. */
export function looksOf(checks: readonly CheckItem[]): Look[] {
  const looks: (Look & { items: CheckItem[] })[] = [];
  for (const item of checks) {
    const { together = null, group = '' } = item;
    const own = together === null ? undefined : looks.find((look) => look.together === together && look.group === group);
    if (own) own.items.push(item);
    else looks.push({ id: item.id, group, together, items: [item] });
  }
  // one place is no kind of its own
  return looks.map((look) => (look.items.length > 1 ? look : { ...look, together: null }));
}

/** Looks as rows: as soon as one place was answered alone, each has its own; and wherever somebody wants them apart. */
export function rowsOf(
  checks: readonly CheckItem[],
  marks: Readonly<Record<string, CheckState>>,
  apart: ReadonlySet<string> = new Set(),
): Look[] {
  return looksOf(checks).flatMap((look) => {
    const open = openOf(look, marks).length;
    const isWhole = look.together === null || (!apart.has(look.id) && (open === 0 || open === look.items.length));
    return isWhole ? [look] : look.items.map((item): Look => ({ id: item.id, group: look.group, together: null, items: [item] }));
  });
}

/** Of a look, what nobody has answered yet. */
export const openOf = ({ items }: Look, marks: Readonly<Record<string, CheckState>>): CheckItem[] =>
  items.filter(({ id }) => (marks[id]?.mark ?? 'open') === 'open');
