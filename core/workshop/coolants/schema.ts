import Joi from 'joi';
import { day, finite, id, name, positiveMl, rowVersion } from '../../base/checking/fields.js';
import { METAL_KEYS, type Metal } from '../../machine/materials/metals.js';
import type { Glycol } from '../../machine/liquids/fluids.js';
import { COOLANT_CLASS_KEYS, type CoolantClass } from '../../machine/liquids/classes.js';

export interface CoolantProductInput {
  readonly name: string;
  readonly coolantClass: CoolantClass;
  readonly colour: string;
  readonly form: 'ready-mix' | 'concentrate';
  readonly targetFraction: number | null;
  readonly bottleMl: number;
  readonly sheetLifeMonths: number | null;
  /** running hours by its sheet; null: it states none */
  readonly sheetLifeHours: number | null;
  /** thickens the coolant; null for water with additives */
  readonly glycol: Glycol | null;
  /** mass fraction of glycol in the finished coolant, from its sheet */
  readonly glycolFraction: number | null;
  /** inhibitor package as the sheet names it; decides what it may meet */
  readonly inhibitor: string;
  /** volume fraction of base that the sheet asks for at least */
  readonly leastFraction: number | null;
  /** bottles kept in reserve */
  readonly reorderBottles: number;
}

/** Metals that a coolant's sheet suits; null: it names none, or nobody looked. */
export interface CoolantMetalsInput {
  readonly metals: readonly Metal[] | null;
  readonly version: number;
}
export const coolantMetalsSchema = Joi.object({
  metals: Joi.array()
    .items(Joi.string().valid(...METAL_KEYS))
    .min(1)
    .unique()
    .allow(null)
    .required(),
  version: rowVersion(),
});

/** months and running hours that a sheet may state at most */
const sheetMonths = (): Joi.NumberSchema => finite().greater(0).max(120).allow(null);
const sheetHours = (): Joi.NumberSchema => finite().greater(0).max(50_000).allow(null);

export const coolantProductSchema = Joi.object({
  name: name().required(),
  coolantClass: Joi.string()
    .valid(...COOLANT_CLASS_KEYS)
    .required(),
  colour: Joi.string()
    .pattern(/^#[0-9a-f]{6}$/i, 'a colour as #rrggbb')
    .required(),
  form: Joi.string().valid('ready-mix', 'concentrate').required(),
  targetFraction: finite()
    .greater(0)
    .max(1)
    .allow(null)
    .required()
    .when('form', {
      is: 'concentrate',
      then: Joi.invalid(null).messages({ 'any.invalid': '{{#label}} is needed for a concentrate, as a fraction such as 0.25' }),
    }),
  bottleMl: positiveMl().required(),
  sheetLifeMonths: sheetMonths().required(),
  sheetLifeHours: sheetHours().default(null),
  glycol: Joi.string().valid('ethylene', 'propylene').allow(null).default(null),
  glycolFraction: finite()
    .greater(0)
    .max(0.6)
    .allow(null)
    .default(null)
    .when('glycol', {
      is: Joi.string().required(),
      then: Joi.invalid(null).messages({ 'any.invalid': '{{#label}} is needed where there is glycol, as a mass fraction such as 0.3' }),
    }),
  inhibitor: Joi.string().trim().allow('').max(60).default(''),
  leastFraction: finite().greater(0).max(1).allow(null).default(null),
  reorderBottles: finite().min(0).max(1000).default(0),
});

/** A maker's limit that became known, or changed, after loops were filled. */
export interface CoolantLimitInput {
  readonly version: number;
  /** null: its sheet says nothing, the class counts */
  readonly sheetLifeMonths: number | null;
  readonly sheetLifeHours: number | null;
}
export const coolantLimitSchema = Joi.object({
  version: rowVersion(),
  sheetLifeMonths: sheetMonths().required(),
  sheetLifeHours: sheetHours().default(null),
});

/** Who was told of a moved date, by the date's id. */
export interface LimitTold {
  readonly item: string;
  readonly told: boolean;
}
export const limitToldSchema = Joi.object({ item: id().required(), told: Joi.boolean().required() });

export interface CoolantLotInput {
  readonly productId: string;
  readonly lot: string;
  readonly openedOn: string | null;
}
export const coolantLotSchema = Joi.object({
  productId: id().required(),
  lot: Joi.string().trim().min(1).max(60).required(),
  openedOn: day().allow(null).required(),
});
