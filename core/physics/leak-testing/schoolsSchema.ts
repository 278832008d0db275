import Joi from 'joi';
import { finite } from '../../base/checking/fields.js';
import { LEAK_SCHOOL_KEYS, LIMIT_KEYS, WET_SCHOOL_KEYS } from './schools.js';

export const leakAndWetFields = {
  leak: Joi.string()
    .valid(...LEAK_SCHOOL_KEYS)
    .required(),
  wet: Joi.string()
    .valid(...WET_SCHOOL_KEYS)
    .required(),
};

export const schoolsSchema = Joi.object({
  ...leakAndWetFields,
  limit: Joi.string()
    .valid(...LIMIT_KEYS)
    .required(),
  gaugeResolutionKpa: finite().greater(0).max(20).required(),
});
