import Joi from 'joi';
import { PLACES, type Place } from '../catalogue/places.js';
import { finite, MOST, name, rowVersion } from '../../base/checking/fields.js';
import { roomInFileSchema } from '../loop-file/loopFileSchema.js';
import type { CaseOutline } from './cases.js';

export type CaseTemplateInput = CaseOutline;
export type CaseTemplateEdit = CaseOutline & { readonly version: number };

/** mm; smaller than a hand is a slip, larger is a wardrobe */
const side = (): Joi.NumberSchema => finite().min(80).max(2000).required();
const along = finite().min(-MOST.lengthMm).max(MOST.lengthMm).required();

const fields = {
  label: name().required(),
  depthMm: side(),
  heightMm: side(),
  widthMm: side(),
  mounts: Joi.object(
    Object.fromEntries(Object.keys(PLACES).map((place) => [place as Place, Joi.array().ordered(along, along, along).length(3)])),
  ).required(),
  room: roomInFileSchema,
};

export const caseTemplateSchema = Joi.object(fields);
export const caseTemplateEditSchema = Joi.object({ ...fields, version: rowVersion() });
