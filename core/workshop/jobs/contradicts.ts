import type { JobInput } from './schema.js';

type Days = Pick<JobInput, 'neededBy' | 'partsOn' | 'dropOffOn' | 'windows'>;

/** Days of a job that cannot all hold, by the field that says so. */
export type Contradiction =
  | { readonly field: 'neededBy'; readonly why: 'before-it-comes' | 'before-its-parts'; readonly day: string }
  | { readonly field: 'windows'; readonly why: 'before-it-comes' | 'before-its-parts' | 'after-it-is-needed'; readonly day: string };

/** The first contradiction among the days that were said; null: there is a day on which it can be done. */
export function contradictionOf({ neededBy, partsOn, dropOffOn, windows }: Days): Contradiction | null {
  if (neededBy !== null && dropOffOn !== null && neededBy < dropOffOn) return { field: 'neededBy', why: 'before-it-comes', day: dropOffOn };
  if (neededBy !== null && partsOn !== null && neededBy < partsOn) return { field: 'neededBy', why: 'before-its-parts', day: partsOn };
  if (windows.length === 0) return null;
  if (dropOffOn !== null && windows.every(({ to }) => to < dropOffOn)) return { field: 'windows', why: 'before-it-comes', day: dropOffOn };
  if (partsOn !== null && windows.every(({ to }) => to < partsOn)) return { field: 'windows', why: 'before-its-parts', day: partsOn };
  if (neededBy !== null && windows.every(({ from }) => from > neededBy))
    return { field: 'windows', why: 'after-it-is-needed', day: neededBy };
  return null;
}
