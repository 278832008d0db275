import type { LearnedItem } from './volumes.js';

/** Volumes as the workshop's own fills tell them. */
export interface LearnedAnswer {
  readonly items: LearnedItem[];
  /** fills that they were learned from */
  readonly fills: number;
}
