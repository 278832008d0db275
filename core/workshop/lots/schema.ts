import Joi from 'joi';
import { day, id } from '../../base/checking/fields.js';

/** What stands on a part's bag or box: its make as it is named there, and its lot. */
export interface LotOnBag {
  readonly make: string;
  readonly lot: string;
}
const word = (most: number): Joi.StringSchema => Joi.string().trim().min(1).max(most);
export const lotOnBagSchema = Joi.object({ make: word(120).required(), lot: word(60).required() });

export interface FittedPartInput extends LotOnBag {
  readonly loopId: string;
  /** component, plug or run of the drawing; null where it is none of them, such as a bag of O-rings */
  readonly itemId: string | null;
  readonly fittedOn: string;
}
export const fittedPartSchema = Joi.object({
  loopId: id().required(),
  itemId: Joi.string().max(120).allow(null).required(),
  make: word(120).required(),
  lot: word(60).required(),
  fittedOn: day().required(),
});

export interface MatesQuery {
  readonly suspect: 'coolant-lot' | 'part';
  readonly item?: string;
}
export const matesSchema = Joi.object({
  suspect: Joi.string().valid('coolant-lot', 'part').required(),
  item: Joi.string().max(120),
});
