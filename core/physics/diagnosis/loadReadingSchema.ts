import Joi from 'joi';
import { finite } from '../../base/checking/fields.js';
import { FAN_RULERS } from './loadReading.js';

const byPart = (value: Joi.NumberSchema): Joi.ObjectSchema =>
  Joi.object().pattern(Joi.string().min(1).max(120), value).min(1).max(40).required();
const share = (): Joi.NumberSchema => finite().min(0).max(1);
const words = (most: number): Joi.StringSchema => Joi.string().trim().min(1).max(most);

/** A reading under load as it is stored: what was measured, and under which conditions. */
export const loadReadingSchema = Joi.object({
  roomC: finite().min(-10).max(60).required(),
  powersW: byPart(finite().greater(0).max(3000)),
  partsC: byPart(finite().min(-10).max(130)),
  coolantC: finite().min(-10).max(100),
  flowLph: finite().min(0).max(3000),
  pumpSpeed: share(),
  fanSpeed: share(),
  fanGroups: Joi.array()
    .items(
      Joi.object({
        name: words(40).required(),
        speed: share().required(),
        by: Joi.string()
          .valid(...FAN_RULERS)
          .required(),
      }),
    )
    .max(8),
  score: finite().min(0).max(10_000_000),
  clockMhz: finite().greater(0).max(20_000),
  powerLimitW: finite().greater(0).max(3000),
  noiseDba: finite().min(0).max(120),
  workload: words(120),
  sensor: words(80),
  statistic: words(60),
  panels: words(20),
  profile: words(40),
  oldCooler: Joi.boolean(),
  minutes: finite().min(0).max(525_600),
  reachedFraction: share(),
});
