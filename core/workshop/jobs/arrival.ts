import Joi from 'joi';
import { day, rowVersion } from '../../base/checking/fields.js';

/** What became of an appointment: brought, not come although it was awaited, fetched again when it was done. */
export const ARRIVALS = ['brought', 'not-come', 'fetched'] as const;
export type Arrival = (typeof ARRIVALS)[number];

export interface ArrivalInput {
  readonly what: Arrival;
  /** null takes it back */
  readonly on: string | null;
  readonly version: number;
}
export const arrivalSchema = Joi.object({
  what: Joi.string()
    .valid(...ARRIVALS)
    .required(),
  on: day().allow(null).required(),
  version: rowVersion(),
});

/** Days of a job on which its machine came and went. */
export interface ArrivalDays {
  readonly broughtOn: string | null;
  readonly notComeOn: string | null;
  readonly fetchedOn: string | null;
}

/** Where a job's machine is: with its owner, here, here and done, gone home; `missed` where it was awaited and did not come. */
export type Whereabouts = 'awaited' | 'missed' | 'here' | 'ready' | 'fetched';
export function whereIs(
  state: 'booked' | 'active' | 'waiting' | 'done' | 'cancelled',
  { broughtOn, notComeOn, fetchedOn }: ArrivalDays,
): Whereabouts {
  if (fetchedOn !== null) return 'fetched';
  if (state === 'done') return 'ready';
  if (broughtOn !== null || state === 'active' || state === 'waiting') return 'here';
  return notComeOn === null ? 'awaited' : 'missed';
}
