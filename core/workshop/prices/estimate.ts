import { say } from '../../base/words/say.js';
import Joi from 'joi';
import { finite, id, minor } from '../../base/checking/fields.js';
import { UNITS, type StoreUnit } from '../store/schema.js';
import type { Priced } from './priced.js';

/** A part of an estimate: from the store, or written. */
export interface PartLine {
  /** null: no shelf counts it */
  readonly itemId: string | null;
  readonly what: string;
  readonly amount: number;
  readonly unit: StoreUnit;
  /** minor units for `PRICE_FOR` of its unit, where no shelf has its price; null: not known yet */
  readonly eachMinor: number | null;
}
/** parts that one estimate may name */
const MOST_PART_LINES = 40;

/** Hours, parts and coolant as somebody reckons them. */
export interface EstimateInput {
  readonly hours: number;
  readonly partsText: string;
  readonly coolantMl: number;
  /** a price that was told otherwise; empty where none was */
  readonly priceText: string;
  readonly parts: readonly PartLine[];
}

/** An estimate as told to the owner, with its price of that day. */
export interface Estimate extends EstimateInput {
  /** null: this workshop reckoned no prices then */
  readonly priced: Priced | null;
}

const text = (most: number): Joi.StringSchema => Joi.string().trim().allow('').max(most).required();
export const estimateSchema = Joi.object({
  hours: finite().greater(0).max(400).required(),
  partsText: text(1000),
  coolantMl: finite().min(0).max(20_000).required(),
  priceText: text(80),
  parts: Joi.array()
    .items(
      Joi.object({
        itemId: id().allow(null).required(),
        what: text(120).when('itemId', { is: null, then: Joi.invalid('').messages({ 'any.invalid': say('say what part it is') }) }),
        amount: finite().greater(0).max(10_000).required(),
        unit: Joi.string()
          .valid(...UNITS)
          .required(),
        eachMinor: minor().allow(null).required(),
      }),
    )
    .max(MOST_PART_LINES)
    .default([]),
});
