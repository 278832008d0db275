import Joi from 'joi';
import { volumeMl } from '../../base/checking/fields.js';

/** A part that is left out of the loop while its run goes on. */
export interface BypassInput {
  readonly part: string;
  /** where it lies now */
  readonly text: string;
  /** mL that left inside it; null: nobody measured, the book says */
  readonly heldMl: number | null;
}

export const bypassSchema = Joi.object({
  part: Joi.string().min(1).max(120).required(),
  text: Joi.string().trim().min(1).max(300).required(),
  heldMl: volumeMl().allow(null).required(),
});
