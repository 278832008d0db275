import Joi from 'joi';
import { addDays } from '../../base/units/calendar.js';
import type { Offer } from '../calls/offers.js';
import { MOST_WINDOWS, type OwnerWindow } from '../jobs/schema.js';
import { placeFields } from '../planning/schema.js';
import type { NotDays } from './said.js';

/** What the desk makes of what an owner said. */
export interface AnswerInput {
  /** it holds: the slot is booked, the date moved, the hours count */
  readonly taken: boolean;
  /** to the owner, beside it */
  readonly words: string;
}
export const answerSchema = Joi.object({ taken: Joi.boolean().required(), words: Joi.string().trim().allow('').max(500).required() });

/** slots that are offered at once: what an owner can keep in mind */
export const MOST_OFFERS = 6;
export interface OfferInput {
  readonly offers: readonly Offer[];
}
export const offerSchema = Joi.object({
  offers: Joi.array().items(Joi.object(placeFields)).min(1).max(MOST_OFFERS).required(),
});

/** days ahead for which "not then" is turned into "then" */
const AHEAD_DAYS = 120;

/**
 * Days that an owner ruled out, as the days that are left from today on: what the plan asks for. Beyond the last of them everything is free
 * again; what does not fit into the windows that a job may have is left out at its far end.
 */
export function windowsWithout(not: readonly NotDays[], today: string): OwnerWindow[] {
  const last = addDays(today, AHEAD_DAYS);
  const sorted = [...not].filter(({ to }) => to >= today).sort((a, b) => (a.from < b.from ? -1 : 1));
  const windows: OwnerWindow[] = [];
  let from = today;
  for (const out of sorted) {
    if (out.from > from) windows.push({ from, to: addDays(out.from, -1) });
    if (out.to >= from) from = addDays(out.to, 1);
  }
  if (from <= last) windows.push({ from, to: last });
  return windows.slice(0, MOST_WINDOWS);
}
