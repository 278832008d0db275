import Joi from 'joi';
import { finite } from '../../base/checking/fields.js';
import { BASELINE_STATISTICS } from './reading.js';

const ofSensor = {
  sensor: Joi.string().trim().min(1).max(80).required(),
  partC: finite().min(-10).max(130).required(),
  powerW: finite().min(0).max(3000).allow(null).required(),
  warming: Joi.object({
    reachedFraction: finite().min(0).max(1).required(),
    endsC: finite().min(-60).max(300).required(),
    endsSdK: finite().min(0).max(300).required(),
  }),
};

export const baselineSchema = Joi.object({
  setting: Joi.string().trim().min(1).max(80).required(),
  ...ofSensor,
  workload: Joi.string().trim().min(1).max(120).required(),
  durationMinutes: finite().greater(0).max(2880).required(),
  statistic: Joi.string()
    .valid(...BASELINE_STATISTICS)
    .required(),
  panels: Joi.string().valid('on', 'off').required(),
  pumpPercent: finite().min(0).max(100).required(),
  fanPercent: finite().min(0).max(100).required(),
  roomC: finite().min(-10).max(60).required(),
  coolantC: finite().min(-10).max(100).allow(null).required(),
  flowLph: finite().min(0).max(3000).allow(null).required(),
  levelMm: finite().min(-1000).max(1000).allow(null).required(),
  dusted: Joi.boolean(),
  oldCooler: Joi.boolean(),
});

/** Another sensor at the same moment. */
export const alsoReadSchema = Joi.object(ofSensor);
