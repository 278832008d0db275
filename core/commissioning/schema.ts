import Joi from 'joi';
import { finite, id, note } from '../checking/fields.js';
import { LEAK_SCHOOL_KEYS, LIMIT_KEYS, WET_SCHOOL_KEYS, type Schools } from './schools.js';

export const schoolsSchema = Joi.object({
  leak: Joi.string()
    .valid(...LEAK_SCHOOL_KEYS)
    .required(),
  wet: Joi.string()
    .valid(...WET_SCHOOL_KEYS)
    .required(),
  limit: Joi.string()
    .valid(...LIMIT_KEYS)
    .required(),
  gaugeResolutionKpa: finite().greater(0).max(20).required(),
});

export interface RunCreate {
  readonly loopId: string;
  readonly benchId: string | null;
  readonly schools: Schools;
}
export const runCreateSchema = Joi.object({
  loopId: id().required(),
  benchId: id().allow(null).required(),
  schools: schoolsSchema.required(),
});

export interface SignOffInput {
  /** id of the entry, made on the device */
  readonly id: string;
  readonly remark: string;
}
export const signOffSchema = Joi.object({ id: id().required(), remark: note().required() });
