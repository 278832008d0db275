import Joi from 'joi';
import { finite } from '../../../base/checking/fields.js';

/** Fields that several kinds of entries share. */
export const key = Joi.string().min(1).max(120);
export const step = key.required();
export const item = Joi.string().min(1).max(160);
export const reason = Joi.string().trim().min(3).max(1000);
export const sentence = Joi.string().trim().min(1).max(1000);
export const source = Joi.string().valid('hand', 'instrument', 'simulated');
export const override = Joi.object({ rule: key.required(), reason: reason.required() });
export const levelMm = finite().min(-1000).max(1000).required();
export const oneOf = (values: readonly string[]): Joi.StringSchema => Joi.string().valid(...values);

/** Whether a calendar day is over, wherever on earth the workshop stands. */
export const isPast = (dayText: string, nowMs: number): boolean => Date.parse(`${dayText}T23:59:59Z`) < nowMs;
