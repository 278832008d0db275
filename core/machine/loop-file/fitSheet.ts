import type { FitSheet } from './loopFile.js';

/** What a sheet says with some of it changed. What is undefined, or an empty table, is left out; undefined: it says nothing any more. */
export function changedSheet(fit: FitSheet | undefined, facts: Partial<FitSheet>): FitSheet | undefined {
  const isEmpty = (value: unknown): boolean =>
    value === undefined || (typeof value === 'object' && Object.keys(value as object).length === 0);
  const next = Object.fromEntries(Object.entries({ ...fit, ...facts }).filter(([, value]) => !isEmpty(value)));
  return Object.keys(next).length > 0 ? next : undefined;
}
