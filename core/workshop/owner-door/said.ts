import Joi from 'joi';
import { say } from '../../base/words/say.js';
import { dataAddress, day, finite, id } from '../../base/checking/fields.js';
import { MOST_FILE_BYTES } from '../files/kinds.js';
import { PHOTO_TYPES } from '../photos/schema.js';
import { MOST_METER_HOURS } from '../usage/defaults.js';

/** What an owner says at the door. Every kind is a code with its values; who said it is the link's owner. */
export type Said =
  | { readonly kind: 'agreed'; readonly estimateNumber: number; readonly name: string }
  | { readonly kind: 'declined'; readonly estimateNumber: number; readonly name: string; readonly why: string }
  /** an offered slot, by its beginning */
  | { readonly kind: 'slot'; readonly from: string }
  /** days on which it cannot come */
  | { readonly kind: 'days'; readonly not: readonly NotDays[]; readonly text: string }
  | { readonly kind: 'put-off'; readonly until: string; readonly name: string; readonly why: string }
  | { readonly kind: 'photo'; readonly text: string }
  | { readonly kind: 'meter'; readonly hours: number; readonly on: string }
  | { readonly kind: 'log' }
  | { readonly kind: 'line'; readonly text: string };
export type SaidKind = Said['kind'];
export const SAID_KINDS: readonly SaidKind[] = ['agreed', 'declined', 'slot', 'days', 'put-off', 'photo', 'meter', 'log', 'line'];
/** Kinds that bring a picture or a file. */
export const WITH_FILE: readonly SaidKind[] = ['photo', 'log'];

/** Days on which an owner cannot do without the machine, both counted. */
export interface NotDays {
  readonly from: string;
  readonly to: string;
}

export interface SaidInput {
  /** made on the device: sent twice, it is said once */
  readonly id: string;
  readonly said: Said;
  /** the picture or file as a data address, where the kind brings one */
  readonly file: string | null;
}

const text = (most: number): Joi.StringSchema => Joi.string().trim().allow('').max(most);
const signed = (): Joi.StringSchema =>
  Joi.string()
    .trim()
    .min(2)
    .max(120)
    .required()
    .messages({ 'string.empty': say('write your name'), 'string.min': say('write your name') });
/** days that one entry may rule out */
const MOST_NOT_DAYS = 12;
const range = Joi.object({
  from: day().required(),
  to: day()
    .required()
    .custom((value: string, helpers) => {
      const { from } = helpers.state.ancestors[0] as NotDays;
      return value >= from ? value : helpers.message({ custom: `{{#label}} must not lie before the first day, ${from}` });
    }),
});

const FIELDS: Readonly<Record<SaidKind, Joi.SchemaMap>> = {
  agreed: { estimateNumber: Joi.number().integer().min(1).max(100_000).required(), name: signed() },
  declined: { estimateNumber: Joi.number().integer().min(1).max(100_000).required(), name: signed(), why: text(1000).required() },
  slot: { from: Joi.string().isoDate().max(40).required() },
  days: { not: Joi.array().items(range).min(1).max(MOST_NOT_DAYS).required(), text: text(500).required() },
  'put-off': { until: day().required(), name: signed(), why: text(500).required() },
  photo: { text: text(500).required() },
  meter: { hours: finite().min(0).max(MOST_METER_HOURS).required(), on: day().required() },
  log: {},
  line: { text: Joi.string().trim().min(1).max(1000).required() },
};

/** What is behind these beginnings is looked at by whoever reads the file. */
const FILE_TYPES = [...PHOTO_TYPES, 'text/csv', 'text/plain', 'application/octet-stream', 'application/vnd.ms-excel'];

const ofKind = (kind: SaidKind): Joi.ObjectSchema => Joi.object({ kind: Joi.valid(kind).required(), ...FIELDS[kind] });
export const saidSchema = Joi.object({
  id: id().required(),
  said: Joi.alternatives()
    .conditional('.kind', {
      switch: SAID_KINDS.map((kind) => ({ is: kind, then: ofKind(kind) })),
      otherwise: Joi.object({
        kind: Joi.string()
          .valid(...SAID_KINDS)
          .required(),
      }).unknown(),
    })
    .required(),
  file: dataAddress(FILE_TYPES, MOST_FILE_BYTES, 'a picture or a table').allow(null).required(),
});
