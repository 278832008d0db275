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
