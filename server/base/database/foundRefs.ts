import { sql, type SQL } from 'drizzle-orm';

/** What texts are kept of; `make_searchable` of a migration names each with its table. */
export type SearchedKind =
  | 'machine'
  | 'owner'
  | 'phone'
  | 'job'
  | 'intake'
  | 'finding'
  | 'entry'
  | 'lot'
  | 'product'
  | 'fitted'
  | 'part'
  | 'photo'
  | 'kept'
  | 'item';

/** The words of what somebody looks for: each of them must occur. */
export const wordsIn = (text: string): string[] => text.split(/\s+/u).filter(Boolean);

/**
 * The newest rows of one kind in whose text every word occurs, capitals and accents aside: a query of ids, from the index
 * of trigrams.
 */
export const foundRefs = (kind: SearchedKind, words: readonly string[], most: number): SQL<string> =>
  sql<string>`(select found_refs(${kind}, array(select jsonb_array_elements_text(${JSON.stringify(words)}::jsonb)), ${most}))`;
