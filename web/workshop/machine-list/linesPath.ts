import { PAGE } from '@core/workshop/machine-list/pages.js';
import type { Attention } from '@core/workshop/due-dates/attention.js';

/** Which machines a list asks for. */
export interface LinesAsked {
  readonly q?: string;
  readonly attention?: Attention | null;
  readonly coming?: boolean;
}

/** The address of a page of the list. @param after the place that the page before gave */
export function linesPath(asked: LinesAsked, after: string | null = null, limit: number = PAGE.usual): string {
  const query = new URLSearchParams({ limit: String(limit) });
  if (asked.q) query.set('q', asked.q);
  if (asked.attention) query.set('attention', asked.attention);
  if (asked.coming) query.set('coming', 'true');
  if (after !== null) query.set('after', after);
  return `/systems?${query}`;
}
