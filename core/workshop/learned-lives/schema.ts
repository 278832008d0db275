import Joi from 'joi';
import { finite, id, rowVersion } from '../../base/checking/fields.js';

export interface LifeRiskEdit {
  readonly risk: number;
  readonly version: number;
}
/** share of fills that may fail before their change: one in a hundred to one in two */
export const lifeRiskSchema = Joi.object({ risk: finite().min(0.01).max(0.5).required(), version: rowVersion() });

/** Whose owner was told of a lot. */
export interface LotTold {
  readonly systemId: string;
  readonly told: boolean;
}
export const lotToldSchema = Joi.object({ systemId: id().required(), told: Joi.boolean().required() });
