import Joi from 'joi';

/** A build goes on with another drawing. */
export interface RelaidInput {
  /** number of the drawing, saved as wanted since the build has its loop */
  readonly wanted: number;
}
export const relaidSchema = Joi.object({ wanted: Joi.number().integer().min(1).required() });
