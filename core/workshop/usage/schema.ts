import { say } from '../../base/words/say.js';
import Joi from 'joi';
import { day, finite } from '../../base/checking/fields.js';
import { daysBetween } from '../../base/units/calendar.js';
import { MOST_METER_HOURS } from './defaults.js';

export interface UsageReadingInput {
  readonly source: 'meter' | 'log';
  readonly fromOn: string | null;
  readonly on: string;
  readonly hours: number;
  readonly meanCoolantC: number | null;
  readonly note: string;
}

/** Something read wrongly is struck out, or brought back. */
export const strikeSchema = Joi.object({ struck: Joi.boolean().required() });

export const usageReadingSchema = Joi.object({
  source: Joi.string().valid('meter', 'log').required(),
  fromOn: day()
    .allow(null)
    .required()
    .when('source', {
      is: 'log',
      then: Joi.invalid(null).messages({ 'any.invalid': '{{#label}} is needed for a log: its first day' }),
      otherwise: Joi.valid(null).messages({ 'any.only': '{{#label}} belongs to a log; a meter is read on one day' }),
    }),
  on: day().required(),
  hours: finite().min(0).max(MOST_METER_HOURS).required(),
  meanCoolantC: finite().min(0).max(90).allow(null).required(),
  note: Joi.string().trim().allow('').max(200).required(),
}).custom((value: UsageReadingInput, helpers) => {
  if (value.fromOn === null) return value;
  if (value.fromOn > value.on) return helpers.message({ custom: say('fromOn: a log ends on its first day or later') });
  const mostHours = 24 * (daysBetween(value.fromOn, value.on) + 1);
  return value.hours <= mostHours
    ? value
    : helpers.message({ custom: say('hours: these days have {mostHours} hours in all (got {hours})', { mostHours, hours: value.hours }) });
});
