import Joi from 'joi';
import { finite } from '../../base/checking/fields.js';
import { STACK_FIELDS } from './fanScrews.js';

/** mm; more is no fan on a radiator */
const MOST_MM = 200;

/** What was measured of each radiator's screws, as it is stored. */
export const fanStacksSchema = Joi.object({
  stacks: Joi.object()
    .pattern(
      Joi.string().min(1).max(120),
      Joi.object(Object.fromEntries(STACK_FIELDS.map((field) => [field, finite().min(0).max(MOST_MM).required()]))),
    )
    .max(60)
    .required(),
});
