import Joi from 'joi';
import { day, id } from '../../base/checking/fields.js';
import { placeFields } from '../planning/schema.js';
import { JOB_KIND_KEYS, ABOUT_A_PART, type JobKind } from '../job-kinds/kinds.js';
import { CONSENT_WAY_KEYS, jobSchema, type ConsentWay, type JobInput, type OwnerWindow } from '../jobs/schema.js';
import type { Offer } from './offers.js';

export interface CallQuery {
  readonly who: string;
}
export const callSchema = Joi.object({ who: Joi.string().trim().min(2).max(120).required() });

/** Kinds that can be booked on the phone: those about one part need somebody who looks at it first. */
export const CALLED_KINDS: readonly JobKind[] = JOB_KIND_KEYS.filter((kind) => !ABOUT_A_PART.includes(kind));

export interface OffersQuery {
  readonly loop: string;
  readonly kind: JobKind;
  readonly hours: string;
  /** days in which its owner can do without it, `from/to` by commas; empty: any */
  readonly days: string;
  /** day on which its parts are there */
  readonly parts?: string;
}
/** The days of a query as the board knows them. */
export const windowsOf = (days: string): OwnerWindow[] =>
  days === '' ? [] : days.split(',').map((each) => ({ from: each.slice(0, 10), to: each.slice(11) }));
export const offersSchema = Joi.object({
  loop: id().required(),
  kind: Joi.string()
    .valid(...CALLED_KINDS)
    .required(),
  hours: Joi.string()
    .pattern(/^\d{1,3}(?:\.\d{1,2})?$/u, 'hours')
    .required(),
  days: Joi.string()
    .pattern(/^(?:\d{4}-\d{2}-\d{2}\/\d{4}-\d{2}-\d{2})(?:,\d{4}-\d{2}-\d{2}\/\d{4}-\d{2}-\d{2}){0,5}$/u, 'days')
    .allow('')
    .default(''),
  parts: day(),
});

/** A job with its slot, as it was agreed on the phone. */
export interface BookingInput {
  readonly job: JobInput;
  readonly offer: Offer;
  /** how the owner agreed to the estimate; null: not asked yet */
  readonly agreed: ConsentWay | null;
}
export const bookingSchema = Joi.object({
  job: jobSchema.required(),
  offer: Joi.object(placeFields).required(),
  agreed: Joi.string()
    .valid(...CONSENT_WAY_KEYS)
    .allow(null)
    .required(),
});
