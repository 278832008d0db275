import { say } from '../../base/words/say.js';
import Joi from 'joi';
import { day, finite, id, name, note, rowVersion, volumeMl } from '../../base/checking/fields.js';

export const ITEM_KINDS = {
  seal: 'O-rings and gaskets',
  tube: 'tube',
  plug: 'plugs and caps',
  screw: 'screws',
  fitting: 'fittings',
  part: 'parts',
  paste: 'paste and pads',
  cleaner: 'cleaners',
  water: 'distilled water',
  other: 'other',
} as const;
export type ItemKind = keyof typeof ITEM_KINDS;
export const UNITS = ['pcs', 'm', 'mL', 'g'] as const;
export type StoreUnit = (typeof UNITS)[number];

export interface StoreItemInput {
  readonly name: string;
  readonly kind: ItemKind;
  readonly unit: StoreUnit;
  readonly lot: string;
  readonly count: number;
  readonly reorderAt: number;
}
const count = (): Joi.NumberSchema => finite().min(0).max(1_000_000);
export const storeItemSchema = Joi.object({
  name: name().required(),
  kind: Joi.string()
    .valid(...Object.keys(ITEM_KINDS))
    .required(),
  unit: Joi.string()
    .valid(...UNITS)
    .required(),
  lot: Joi.string().trim().allow('').max(60).required(),
  count: count().required(),
  reorderAt: count().required(),
});

/** Came in, went out, counted anew: the shelf's number and why it changed. */
export interface StoreMoveInput {
  readonly change: number;
  readonly reason: string;
}
export const storeMoveSchema = Joi.object({
  change: finite()
    .min(-1_000_000)
    .max(1_000_000)
    .invalid(0)
    .required()
    .messages({ 'any.invalid': '{{#label}} must be more or less than 0' }),
  reason: Joi.string().trim().min(2).max(200).required(),
});

/** The shelf was counted again: what stands there now. */
export interface StoreCount {
  readonly count: number;
  readonly version: number;
}
export const storeCountSchema = Joi.object({ count: count().required(), version: rowVersion() });

export interface LotEdit {
  readonly openedOn: string | null;
  readonly keepsUntil: string | null;
  readonly stockMl: number | null;
  readonly samplePlace: string;
  readonly version: number;
}
export const lotEditSchema = Joi.object({
  openedOn: day().allow(null).required(),
  keepsUntil: day().allow(null).required(),
  stockMl: volumeMl().allow(null).required(),
  samplePlace: Joi.string().trim().allow('').max(120).required(),
  version: rowVersion(),
});

export const KEPT_KINDS = { removed: 'taken out', lent: 'lent out', 'loan-machine': 'loan machine' } as const;
export type KeptKind = keyof typeof KEPT_KINDS;
export interface KeptPartInput {
  readonly name: string;
  readonly kind: KeptKind;
  readonly systemId: string | null;
  readonly place: string;
  readonly condition: string;
  readonly heldMl: number;
  readonly lentTo: string;
  readonly untilDay: string | null;
}
const keptFields: Joi.SchemaMap = {
  name: name().required(),
  kind: Joi.string()
    .valid(...Object.keys(KEPT_KINDS))
    .required(),
  systemId: id().allow(null).required(),
  place: Joi.string().trim().allow('').max(200).required(),
  condition: Joi.string().trim().allow('').max(400).required(),
  heldMl: volumeMl().required(),
  lentTo: Joi.string()
    .trim()
    .allow('')
    .max(120)
    .required()
    .when('kind', { is: 'lent', then: Joi.invalid('').messages({ 'any.invalid': say('say who has it') }) }),
  untilDay: day().allow(null).required(),
};
export const keptPartSchema = Joi.object(keptFields);
export const keptPartEditSchema = Joi.object({ ...keptFields, version: rowVersion() });

/** A loan machine for the owner of a job's machine. */
export interface LoanInput {
  readonly keptPartId: string;
  readonly untilDay: string;
}
export const loanSchema = Joi.object({ keptPartId: id().required(), untilDay: day().required() });

export interface GoneInput {
  readonly where: string;
  readonly version: number;
}
export const goneSchema = Joi.object({ where: Joi.string().trim().min(2).max(200).required(), version: rowVersion() });

/** A part in the store was found dry inside. */
export interface DryInput {
  readonly version: number;
}
export const drySchema = Joi.object({ version: rowVersion() });

/** days that a rinsed part may stay wet inside before something grows in it (workshop practice) */
export const WET_PART_DAYS = 14;

export const WASTE_KINDS = {
  'used-coolant': 'used coolant',
  'rinse-water': 'rinse water',
  cleaner: 'spent cleaner',
  mixed: 'mixed, not sorted',
} as const;
export type WasteKind = keyof typeof WASTE_KINDS;

export interface WasteContainerInput {
  readonly label: string;
  readonly kind: WasteKind;
  readonly capacityMl: number;
}
export const wasteContainerSchema = Joi.object({
  label: name().required(),
  kind: Joi.string()
    .valid(...Object.keys(WASTE_KINDS))
    .required(),
  capacityMl: finite().min(100).max(1_000_000).required(),
});

export interface WasteEntryInput {
  readonly volumeMl: number;
  readonly note: string;
}
export const wasteEntrySchema = Joi.object({ volumeMl: finite().greater(0).max(100_000).required(), note: note().max(200).required() });

export interface HandOverInput {
  readonly on: string;
  readonly to: string;
  /** who drove it there; empty: the workshop itself */
  readonly carrier: string;
  /** by the waste list that holds there, as the collection point names it */
  readonly wasteCode: string;
  /** of the collection point's own paper */
  readonly documentNumber: string;
  readonly version: number;
}
export const handOverSchema = Joi.object({
  on: day().required(),
  to: Joi.string().trim().min(2).max(200).required(),
  carrier: Joi.string().trim().allow('').max(200).default(''),
  wasteCode: Joi.string().trim().allow('').max(40).default(''),
  documentNumber: Joi.string().trim().min(1).max(80).required(),
  version: rowVersion(),
});
