import Joi from 'joi';
import { finite } from '../../base/checking/fields.js';
import { SCENARIO_KEYS, type Scenario } from '../simulated-bench/truth.js';

/** h that one skip may pass: the longest wet test */
const MOST_SKIP_S = 48 * 3600;

export interface SimulateInput {
  readonly scenario: Scenario;
  /** the same seed hides the same fault; null: any */
  readonly seed: number | null;
}

export const simulateSchema = Joi.object({
  scenario: Joi.string()
    .valid(...SCENARIO_KEYS)
    .required(),
  seed: Joi.number().integer().min(0).max(2_147_483_647).allow(null).default(null),
});

export const skipSchema = Joi.object({ seconds: finite().greater(0).max(MOST_SKIP_S).required() });
