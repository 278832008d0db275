import Joi from 'joi';
import { day, finite, minor, rowVersion } from '../../base/checking/fields.js';
import { isCurrency } from './money.js';
import { CHARGES, type Rates } from './rates.js';

export type RatesEdit = Rates & { readonly version: number };
/** @param kinds of work that may have an hour of their own */
export const ratesSchema = (kinds: readonly string[]): Joi.ObjectSchema =>
  Joi.object({
    currency: Joi.string()
      .custom((value: string, helpers) =>
        isCurrency(value) ? value : helpers.message({ custom: '{{#label}} must be a currency’s code such as EUR' }),
      )
      .required(),
    hourMinor: minor().allow(null).required(),
    hourMinorByKind: Joi.object(Object.fromEntries(kinds.map((kind) => [kind, minor()]))).required(),
    taxPercent: finite().min(0).max(60).required(),
    withTax: Joi.boolean().required(),
    charge: Joi.string()
      .valid(...Object.keys(CHARGES))
      .required(),
    overPercent: finite().min(0).max(100).required(),
    version: rowVersion(),
  });

/** A price on the shelf; null: none. */
export interface PriceEdit {
  readonly priceMinor: number | null;
  readonly version: number;
}
export const priceSchema = Joi.object({ priceMinor: minor().allow(null).required(), version: rowVersion() });

/** Days, both counted, whose finished jobs are put into one table. */
export interface BillsQuery {
  readonly from: string;
  readonly to: string;
}
export const billsSchema = Joi.object({ from: day().required(), to: day().required() });
