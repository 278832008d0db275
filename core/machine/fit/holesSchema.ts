import Joi from 'joi';
import { finite, MOST } from '../../base/checking/fields.js';
import type { Point } from '../loop-file/loopFile.js';
import { FAN_SCREWS_MM, fanHoles, footHoles, PAPERS, type HoleTemplate, type PaperKey } from './holes.js';

/** What is asked for as a sheet to drill by: a row of fans, or the holes of a foot. */
export interface HolesAsked {
  readonly title: string;
  readonly paper: PaperKey;
  readonly fans?: { readonly fanMm: number; readonly count: number; readonly gapMm: number };
  readonly holes?: readonly Point[];
}

const along = finite().min(-MOST.lengthMm).max(MOST.lengthMm).required();

export const holesAskedSchema = Joi.object({
  title: Joi.string().trim().min(1).max(120).required(),
  paper: Joi.string()
    .valid(...Object.keys(PAPERS))
    .required(),
  fans: Joi.object({
    fanMm: Joi.number()
      .valid(...Object.keys(FAN_SCREWS_MM).map(Number))
      .required(),
    count: Joi.number().integer().min(1).max(6).required(),
    gapMm: finite().min(0).max(50).required(),
  }),
  holes: Joi.array()
    .items(Joi.array().ordered(along, along, finite().greater(0).max(400).required()).length(3))
    .min(1)
    .max(100),
}).xor('fans', 'holes');

export const templateOf = ({ fans, holes }: Pick<HolesAsked, 'fans' | 'holes'>): HoleTemplate => (fans ? fanHoles(fans) : footHoles(holes ?? [])); // prettier-ignore
