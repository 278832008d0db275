import { say } from '../../base/words/say.js';
import Joi from 'joi';
import { day, finite, id, name, note, positiveMl, rowVersion, volumeMl } from '../../base/checking/fields.js';
import { CAUSE_KEYS, DUST_PLACE_KEYS, type CauseKey, type DustPlace } from '../due-dates/facts.js';
import { SERVICE_POLICY_KEYS, type ServicePolicy } from '../due-dates/due.js';
import type { SystemState } from '../due-dates/attention.js';
import { ownReadingSchema, type OwnReading } from '../people/readingSchema.js';
import { REFILLING, SERVICE_KIND_KEYS, type ServiceKind } from '../job-kinds/kinds.js';

export interface OwnerInput {
  readonly name: string;
  readonly email: string | null;
  readonly phone: string | null;
  readonly channel: 'phone' | 'email' | 'text';
  /** letters and the owner’s page, where they are not read the workshop’s way; missing: as the workshop reads */
  readonly reading?: OwnReading;
  /** agreed with this owner, or null to do as the workshop does */
  readonly policy: ServicePolicy | null;
  readonly note: string;
}

const policyField = (): Joi.StringSchema =>
  Joi.string()
    .valid(...SERVICE_POLICY_KEYS)
    .allow(null)
    .required();

const ownerFields: Joi.SchemaMap = {
  name: name().required(),
  // tlds: a workshop may use an internal address, and the list of endings changes every year
  email: Joi.string().email({ tlds: false }).max(200).allow(null).required(),
  phone: Joi.string()
    .trim()
    .max(40)
    .pattern(/^[+(\d][\d\s()/.-]{3,}$/, 'a phone number of digits, spaces and + ( ) / - .')
    .allow(null)
    .required(),
  channel: Joi.string().valid('phone', 'email', 'text').required(),
  note: note().required(),
  reading: ownReadingSchema.default({}),
  policy: policyField(),
};

export const ownerSchema = Joi.object(ownerFields);

/** Which owners are asked for: words of their name, number or address. */
export const ownersQuerySchema = Joi.object({ q: Joi.string().trim().allow('').max(120).default('') });
export const ownerEditSchema = Joi.object({ ...ownerFields, version: rowVersion() });

export interface SystemInput {
  readonly ownerId: string;
  readonly name: string;
  /** serial number, or the label that the workshop sticks on it; empty: none */
  readonly tag: string;
  readonly caseText: string;
  readonly builtBy: string;
  readonly hoursPerDay: number | null;
  /** mean coolant temperature by its owner, °C */
  readonly coolantC: number | null;
  readonly dustPlace: DustPlace;
  readonly policy: ServicePolicy | null;
  readonly note: string;
}

const systemFields: Joi.SchemaMap = {
  ownerId: id().required(),
  name: name().required(),
  tag: Joi.string().trim().allow('').max(60).default(''),
  caseText: Joi.string().trim().allow('').max(200).required(),
  builtBy: Joi.string().trim().allow('').max(120).required(),
  // 0: it stands
  hoursPerDay: finite().min(0).max(24).allow(null).required(),
  coolantC: finite().min(0).max(90).allow(null).default(null),
  dustPlace: Joi.string()
    .valid(...DUST_PLACE_KEYS)
    .default('usual'),
  policy: policyField(),
  note: note().required(),
};

export const systemSchema = Joi.object(systemFields);

export interface SystemEdit extends SystemInput {
  readonly state: SystemState;
  readonly version: number;
}
/** `on-bench` and `waiting` are set by a run alone; nobody can type a machine onto the bench. */
export const systemEditSchema = Joi.object({
  ...systemFields,
  state: Joi.string().valid('planned', 'on-bench', 'waiting', 'in-service', 'retired').required(),
  version: rowVersion(),
});

/** A service that was done without being led, entered afterwards. */
export interface ServiceInput {
  readonly loopId: string;
  readonly kind: ServiceKind;
  readonly doneOn: string;
  readonly productId: string | null;
  readonly drainedMl: number | null;
  readonly pouredMl: number | null;
  /** lot of what was poured; null: nobody wrote it down */
  readonly lotId?: string | null;
  /** what ended the coolant that came out; null: it was still good, or nobody looked */
  readonly ended?: CauseKey | null;
  readonly note: string;
  readonly finding: string;
}

const refilling = {
  is: Joi.valid(...REFILLING),
  then: Joi.invalid(null).messages({ 'any.invalid': '{{#label}} is needed where the loop was refilled' }),
};

export const serviceSchema = Joi.object({
  loopId: id().required(),
  kind: Joi.string()
    .valid(...SERVICE_KIND_KEYS)
    .required(),
  doneOn: day().required(),
  productId: id().allow(null).required().when('kind', refilling),
  drainedMl: volumeMl().allow(null).required(),
  pouredMl: positiveMl().allow(null).required().when('kind', refilling),
  lotId: id().allow(null).default(null),
  ended: Joi.string()
    .valid(...CAUSE_KEYS)
    .allow(null)
    .default(null),
  note: note().required(),
  finding: note().required(),
});

export interface CloseDueInput {
  readonly outcome: 'settled' | 'not-settled' | 'done';
  readonly levelChangeMm: number | null;
  /** mL that went in up to the brim, where no mark shows a level; null or missing: it was not topped up */
  readonly toppedUpMl?: number | null;
  readonly note: string;
  readonly version: number;
}

export const closeDueSchema = Joi.object({
  outcome: Joi.string().valid('settled', 'not-settled', 'done').required(),
  levelChangeMm: finite().min(-500).max(500).allow(null).required(),
  toppedUpMl: finite().min(0).max(5000).allow(null).default(null),
  note: note().required(),
  version: rowVersion(),
});

export interface PostponeInput {
  readonly until: string;
  readonly reason: string;
  readonly riskTold: boolean;
  readonly version: number;
}

export const postponeSchema = Joi.object({
  until: day().required(),
  reason: Joi.string().trim().min(3).max(1000).required(),
  riskTold: Joi.boolean()
    .valid(true)
    .required()
    .messages({ 'any.only': say('tell the owner the risk first, then record that it was told') }),
  version: rowVersion(),
});
