import Joi from 'joi';
import type { TaughtVerdict } from './answers.js';

export interface VerdictInput {
  readonly verdict: TaughtVerdict | null;
}

/** null takes an answer back: the fill is judged by the others again. */
export const verdictSchema = Joi.object({ verdict: Joi.string().valid('counts', 'left-out').allow(null).required() });
