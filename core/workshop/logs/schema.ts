import Joi from 'joi';
import { day, finite } from '../../base/checking/fields.js';
import { refuse } from '../../base/checking/input.js';
import { daysBetween } from '../../base/units/calendar.js';
import type { LoadReading } from '../../physics/diagnosis/loadReading.js';
import { loadReadingSchema } from '../../physics/diagnosis/loadReadingSchema.js';
import { LOG_CHANNELS, UNITS_OF, type LogColumns, type LogUnit } from './columns.js';
import { MOST_DAYS, SANE } from './defaults.js';
import type { DayReading } from './reader.js';

/** A log as it is kept: what it comes to, and how its columns were read. */
export interface LogInput {
  readonly name: string;
  readonly fromOn: string;
  readonly on: string;
  readonly hours: number;
  readonly meanCoolantC: number | null;
  /** the machine's own hour meter at its end, where the log has one */
  readonly meterHours: number | null;
  readonly columns: LogColumns;
  readonly days: readonly DayReading[];
}

const heading = (): Joi.StringSchema => Joi.string().allow('').max(200).required();
const place = { heading: heading(), nth: Joi.number().integer().min(0).max(1000).required() };
const timeColumn = (): Joi.ObjectSchema => Joi.object(place);
const column = (units: readonly LogUnit[]): Joi.ObjectSchema => Joi.object({ ...place, unit: Joi.string().valid(...units).required() }); // prettier-ignore
const rpm = (): Joi.NumberSchema => finite().greater(0).max(SANE.rpm.most).allow(null).required();

const columnsSchema = Joi.object({
  time: timeColumn().required(),
  date: timeColumn().allow(null).required(),
  channels: Joi.object(Object.fromEntries(LOG_CHANNELS.map((channel) => [channel, column(UNITS_OF[channel])]))).required(),
  parts: Joi.array()
    .items(
      Joi.object({
        part: Joi.string().min(1).max(120).required(),
        temperature: column(UNITS_OF.temperature).allow(null).required(),
        power: column(UNITS_OF.power).allow(null).required(),
      }),
    )
    .unique('part')
    .max(40)
    .required(),
  roomC: finite().min(SANE.roomC.least).max(SANE.roomC.most).allow(null).required(),
  fullPumpRpm: rpm(),
  fullFanRpm: rpm(),
});

export const logSchema = Joi.object({
  name: Joi.string().trim().min(1).max(200).required(),
  fromOn: day().required(),
  on: day().required(),
  hours: finite().min(0).required(),
  meanCoolantC: finite().min(0).max(90).allow(null).required(),
  meterHours: finite().min(0).max(200_000).allow(null).required(),
  columns: columnsSchema.required(),
  days: Joi.array()
    .items(Joi.object({ on: day().required(), at: Joi.string().isoDate().required(), reading: loadReadingSchema.required() }))
    .unique('on')
    .max(MOST_DAYS)
    .required(),
});

/** What a schema alone cannot see: the days of a log lie within it, and hold its hours. */
export function demandWhole({ fromOn, on, hours, days }: LogInput): void {
  if (fromOn > on) refuse('on', `a log ends on its first day or later (it begins on ${fromOn})`);
  const mostHours = 24 * (daysBetween(fromOn, on) + 1);
  if (hours > mostHours + 1) refuse('hours', `these days have ${mostHours} hours in all (got ${hours})`);
  days.forEach((each, index) => {
    if (each.on < fromOn || each.on > on) refuse(`days[${index}].on`, `lies outside the log, ${fromOn} to ${on} (got ${each.on})`);
  });
}

/** A reading that somebody took in between. */
export interface HandReadingInput {
  readonly on: string;
  readonly reading: LoadReading;
}
export const handReadingSchema = Joi.object({ on: day().required(), reading: loadReadingSchema.required() });
