import { say } from '../../base/words/say.js';
import Joi from 'joi';
import { finite } from '../../base/checking/fields.js';
import { ABOUT_A_PART, type JobKind } from '../../workshop/job-kinds/kinds.js';
import { PRACTISED, SCENARIO_KEYS, SCENARIOS, scenariosFor, type Scenario } from '../simulated-bench/truth.js';

/** h that one skip may pass: the longest wet test */
const MOST_SKIP_S = 48 * 3600;

/** What is practised, where it is no commissioning. */
export interface PracticeOf {
  readonly kind: JobKind;
  /** component to be changed, where the job is about one */
  readonly partId: string | null;
}

export interface PracticeInput extends SimulateInput {
  /** null: a commissioning */
  readonly job: PracticeOf | null;
}

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

export const practiceSchema = simulateSchema
  .keys({
    job: Joi.object({
      kind: Joi.string()
        .valid(...PRACTISED)
        .required(),
      partId: Joi.string().max(80).allow(null).default(null),
    })
      .custom((value: PracticeOf, helpers) =>
        ABOUT_A_PART.includes(value.kind) && value.partId === null
          ? helpers.message({ custom: say('Name the part that is to be changed: the drain goes down to it.') })
          : value,
      )
      .allow(null)
      .default(null),
  })
  .custom((value: PracticeInput, helpers) =>
    scenariosFor(value.job?.kind ?? null).includes(value.scenario)
      ? value
      : helpers.message({ custom: say('A bench cannot hide “{scenario}” in this kind of job.', { scenario: SCENARIOS[value.scenario] }) }),
  );

export const skipSchema = Joi.object({ seconds: finite().greater(0).max(MOST_SKIP_S).required() });
