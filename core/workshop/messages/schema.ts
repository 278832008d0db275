import Joi from 'joi';
import { id } from '../../base/checking/fields.js';
import { MESSAGE_TEMPLATES, type MessageTemplate } from './templates.js';

export interface MessageInput {
  readonly systemId: string;
  readonly template: MessageTemplate;
  readonly when: string;
  /** when it is ready by the plan, in words; empty: not said */
  readonly ready: string;
  readonly text: string;
}
export const messageSchema = Joi.object({
  systemId: id().required(),
  template: Joi.string()
    .valid(...MESSAGE_TEMPLATES)
    .required(),
  when: Joi.string().trim().allow('').max(80).required(),
  ready: Joi.string().trim().allow('').max(80).default(''),
  text: Joi.string().trim().allow('').max(1000).required(),
});

/** Letters about a job that are written from what is known of it. */
export const JOB_LETTERS = ['estimate', 'offers'] as const;
export interface JobLetterInput {
  readonly letter: (typeof JOB_LETTERS)[number];
}
export const jobLetterSchema = Joi.object({
  letter: Joi.string()
    .valid(...JOB_LETTERS)
    .required(),
});

/** What a gateway for texts gets. */
export interface TextToPhone {
  readonly workshopId: string;
  /** name of the workshop that writes */
  readonly from: string;
  /** a number */
  readonly to: string;
  readonly text: string;
}
export const textSchema = Joi.object({
  workshopId: id().required(),
  from: Joi.string().max(200).required(),
  to: Joi.string().max(60).required(),
  text: Joi.string().max(2000).required(),
});
