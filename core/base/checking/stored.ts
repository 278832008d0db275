/** Readers of documents that a database keeps: what an older program left out is filled in, what cannot be is said. */

/** What is stored is not what it should be: another program wrote it, or it was damaged. */
export class UnreadableDocument extends Error {}

/** An object; keys that an older program did not write yet take their defaults. @throws UnreadableDocument */
export const readObject =
  <T extends object>(what: string, defaults: Partial<T> = {}) =>
  (raw: unknown): T => {
    if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) throw new UnreadableDocument(`${what} is stored as something else`);
    return { ...defaults, ...raw } as T;
  };

/** A list. @throws UnreadableDocument */
export const readList =
  <T>(what: string) =>
  (raw: unknown): T[] => {
    if (!Array.isArray(raw)) throw new UnreadableDocument(`${what} is stored as something else than a list`);
    return raw as T[];
  };
