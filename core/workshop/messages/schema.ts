import Joi from 'joi';
import { id } from '../../base/checking/fields.js';
import { MESSAGE_TEMPLATES, type MessageTemplate } from './templates.js';

export interface MessageInput {
  readonly systemId: string;
  readonly template: MessageTemplate;
  readonly when: string;
  readonly text: string;
}
export const messageSchema = Joi.object({
  systemId: id().required(),
  template: Joi.string()
    .valid(...MESSAGE_TEMPLATES)
    .required(),
  when: Joi.string().trim().allow('').max(80).required(),
  text: Joi.string().trim().allow('').max(1000).required(),
});
