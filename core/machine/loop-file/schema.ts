import Joi from 'joi';
import { id, name } from '../../base/checking/fields.js';
import { SAVED_KINDS, type RevisionKind } from './revisionKinds.js';

export interface LoopCreate {
  readonly systemId: string;
  readonly name: string;
  readonly coolantProductId: string | null;
  /** a loop file; checked by `readLoopFile` */
  readonly file: unknown;
}
export const loopCreateSchema = Joi.object({
  systemId: id().required(),
  name: name().required(),
  coolantProductId: id().allow(null).required(),
  file: Joi.any().required(),
});

/** Each circuit of one drawing becomes a loop; `version` is the loop's when it was looked at. */
export interface LoopPart {
  readonly version: number;
}
export const loopPartSchema = Joi.object({ version: Joi.number().integer().min(1).required() });

/** A new revision, made from the one its author saw: `version` is that of the loop at that time. */
export interface RevisionCreate {
  readonly kind: RevisionKind;
  readonly reason: string;
  readonly name: string;
  readonly coolantProductId: string | null;
  readonly version: number;
  readonly file: unknown;
}
export const revisionSchema = Joi.object({
  kind: Joi.string()
    .valid(...SAVED_KINDS)
    .required(),
  reason: Joi.string().trim().allow('').max(500).required(),
  name: name().required(),
  coolantProductId: id().allow(null).required(),
  version: Joi.number().integer().min(1).required(),
  file: Joi.any().required(),
});
