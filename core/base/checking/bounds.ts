import { refuse } from './input.js';

/** What a document may be at most, looked at before any schema sees it: a checker meets each key, so keys cost time. */
export const BOUNDS = {
  /** levels of objects and lists; the deepest document of ours (an inspection in a run's entry) has nine */
  depth: 32,
  /** keys of one object; the widest of ours are maps by part of a loop */
  keys: 2000,
  /** items of one list; a workshop's whole table of machines has some thousand rows */
  items: 20_000,
  /** keys and items of the whole document */
  values: 400_000,
} as const;

/**
 * Refuses a document by its shape alone. Walks without recursion and stops at the first bound that is crossed, so that a
 * hostile document costs no more than a good one.
 * @throws InputProblem
 */
export function boundShape(input: unknown): void {
  let values = 0;
  let level: object[] = isHolder(input) ? [input] : [];
  for (let depth = 1; level.length > 0; depth += 1) {
    if (depth > BOUNDS.depth) refuse('', `the document may nest ${BOUNDS.depth} levels deep at most`);
    const next: object[] = [];
    for (const each of level) {
      const inside: unknown[] = Array.isArray(each) ? each : Object.values(each);
      const most = Array.isArray(each) ? BOUNDS.items : BOUNDS.keys;
      if (inside.length > most)
        refuse('', `one ${Array.isArray(each) ? 'list' : 'object'} may hold ${most} entries at most (got ${inside.length})`);
      values += inside.length;
      if (values > BOUNDS.values) refuse('', `the document may hold ${BOUNDS.values} values at most`);
      if (!Array.isArray(each)) demandText(...Object.keys(each));
      for (const value of inside)
        if (isHolder(value)) next.push(value);
        else if (typeof value === 'string') demandText(value);
    }
    level = next;
  }
}

/** Half of a character, or none: neither file nor database can hold it as it was sent. */
function demandText(...texts: readonly string[]): void {
  if (texts.some((text) => UNSTORABLE.test(text)))
    refuse('', 'a text holds a character that cannot be stored; remove control characters and halves of characters');
}
const UNSTORABLE = /\0|[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/;

const isHolder = (value: unknown): value is object => typeof value === 'object' && value !== null;
