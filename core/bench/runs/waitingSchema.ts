import Joi from 'joi';
import { id } from '../../base/checking/fields.js';
import { resumed, type ResumedEntry } from './entries/resumed.js';
import { waits, type WaitsEntry } from './entries/waits.js';

export interface WaitInput extends Omit<WaitsEntry, 'type'> {
  /** of the entry: the same one sent twice counts once */
  readonly id: string;
}
export const waitSchema = Joi.object({ id: id().required(), ...waits.schema });

export interface ResumeInput extends Omit<ResumedEntry, 'type'> {
  readonly id: string;
  readonly benchId: string | null;
}
export const resumeSchema = Joi.object({ id: id().required(), benchId: id().allow(null).required(), ...resumed.schema });
