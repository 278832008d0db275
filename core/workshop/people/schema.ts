import type { DrainHabits } from '../../physics/draining/defaults.js';
import { leakAndWetFields, schoolsSchema } from '../../physics/leak-testing/schoolsSchema.js';
import Joi from 'joi';
import { name, rowVersion } from '../../base/checking/fields.js';
import { TESTED_KINDS, type WorkshopSchools } from '../jobs/usualSchools.js';
import { SERVICE_POLICY_KEYS, type ServicePolicy } from '../due-dates/due.js';
import { DEVICES, LEAST_PASSWORD_LENGTH, ROLES, type Device, type Role } from './roles.js';
import { isTimeZone } from '../../base/units/calendar.js';

const email = (): Joi.StringSchema => Joi.string().trim().email({ tlds: false }).max(200);
const password = (): Joi.StringSchema => Joi.string().min(LEAST_PASSWORD_LENGTH).max(200);
const role = (): Joi.StringSchema => Joi.string().valid(...Object.keys(ROLES));
const timeZone = (): Joi.StringSchema =>
  Joi.string()
    .max(60)
    .custom((value: string, helpers) =>
      isTimeZone(value) ? value : helpers.message({ custom: '{{#label}} must be a time zone such as Europe/Lisbon' }),
    );

export interface SignInInput {
  readonly email: string;
  readonly password: string;
  /** missing: a program that is no screen */
  readonly device?: Device;
}
export const signInSchema = Joi.object({
  email: Joi.string().trim().max(200).required(),
  password: Joi.string().max(200).required(),
  device: Joi.string().valid(...Object.keys(DEVICES)),
});

export interface SetupInput {
  readonly workshopName: string;
  readonly timeZone: string;
  readonly personName: string;
  readonly email: string;
  readonly password: string;
}
export const setupSchema = Joi.object({
  workshopName: name().required(),
  timeZone: timeZone().required(),
  personName: name().required(),
  email: email().required(),
  password: password().required(),
});

export interface PersonInput {
  readonly name: string;
  readonly email: string;
  readonly role: Role;
  readonly password: string;
}
export const personSchema = Joi.object({
  name: name().required(),
  email: email().required(),
  role: role().required(),
  password: password().required(),
});

export interface PersonEdit {
  readonly name: string;
  readonly role: Role;
  /** false: cannot sign in any more; what this person wrote keeps the name */
  readonly active: boolean;
  readonly version: number;
}
export const personEditSchema = Joi.object({
  name: name().required(),
  role: role().required(),
  active: Joi.boolean().required(),
  version: rowVersion(),
});

/** A password that somebody else is given: it is to be changed at the next sign-in. */
export interface PasswordGiven {
  readonly password: string;
}
export const passwordGivenSchema = Joi.object({ password: password().required() });

export interface PasswordChange {
  readonly current: string;
  readonly password: string;
}
export const passwordChangeSchema = Joi.object({ current: Joi.string().max(200).required(), password: password().required() });

/** Somebody forgot: a letter with a link goes to the address, if it is one of ours. */
export interface LinkAsked {
  readonly email: string;
}
export const linkAskedSchema = Joi.object({ email: email().required() });

/** A new password by the link of that letter. */
export interface PasswordByLink {
  readonly link: string;
  readonly password: string;
}
export const passwordByLinkSchema = Joi.object({ link: Joi.string().max(400).required(), password: password().required() });

export interface WorkshopEdit {
  readonly name: string;
  readonly timeZone: string;
  readonly policy: ServicePolicy;
  readonly schools: WorkshopSchools;
  /** first and last of the hot months; both null: services fall when they fall */
  readonly hotFromMonth: number | null;
  readonly hotUntilMonth: number | null;
  /** missing: as it was */
  readonly drain?: DrainHabits;
  readonly version: number;
}
const month = (): Joi.NumberSchema => Joi.number().integer().min(1).max(12).allow(null).default(null);
export const workshopSchema = Joi.object({
  name: name().required(),
  timeZone: timeZone().required(),
  policy: Joi.string()
    .valid(...SERVICE_POLICY_KEYS)
    .required(),
  schools: schoolsSchema
    .keys({
      byKind: Joi.object(Object.fromEntries(TESTED_KINDS.map((kind) => [kind, Joi.object(leakAndWetFields)]))),
      loadsMayStay: Joi.array()
        .items(Joi.string().valid(...TESTED_KINDS))
        .unique(),
    })
    .required(),
  hotFromMonth: month(),
  hotUntilMonth: month().when('hotFromMonth', {
    is: null,
    then: Joi.valid(null).messages({ 'any.only': '{{#label}} needs a first hot month as well' }),
    otherwise: Joi.invalid(null).messages({ 'any.invalid': '{{#label}} is needed where there is a first hot month' }),
  }),
  drain: Joi.object({
    turns: Joi.boolean().required(),
    headLeastMl: Joi.number().min(5).max(2000).allow(null).required(),
    joints: Joi.boolean().required(),
  }),
  version: rowVersion(),
});

export const benchSchema = Joi.object({ name: name().required() });
