import Joi from 'joi';
import { day, id } from '../../base/checking/fields.js';
import { FALLOUT_STAGE_KEYS, type FalloutStage } from '../due-dates/facts.js';

/** What somebody saw of a loop's liquid. Its id is made on the device: sent twice, it is kept once. */
export interface FalloutInput {
  readonly id: string;
  readonly stage: FalloutStage;
  readonly on: string;
  readonly note: string;
}

export const falloutSchema = Joi.object({
  id: id().required(),
  stage: Joi.string()
    .valid(...FALLOUT_STAGE_KEYS)
    .required(),
  on: day().required(),
  note: Joi.string().trim().allow('').max(500).required(),
});
