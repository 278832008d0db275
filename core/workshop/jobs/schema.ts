import { say } from '../../base/words/say.js';
import { leakAndWetFields, schoolsSchema } from '../../physics/leak-testing/schoolsSchema.js';
import Joi from 'joi';
import type { Schools } from '../../physics/leak-testing/schools.js';
import { day, finite, id, note, rowVersion } from '../../base/checking/fields.js';
import { colourReadFields, type ColourRead } from '../../machine/liquids/colourSchema.js';
import { estimateSchema, type EstimateInput } from '../prices/estimate.js';
import { BESIDE_KEYS, mayGoBeside, type BesideWork } from './beside.js';
import { BOOKED_KIND_KEYS, JOB_KIND_KEYS, type BookedKind, type JobKind } from '../job-kinds/kinds.js';
import type { LeakAndWet } from './usualSchools.js';
import { SIGN_KEYS, type Sign } from './scope.js';

export const DATA_SAFE = { yes: 'a copy exists', no: 'no copy exists', unknown: 'not asked yet' } as const;
export type DataSafe = keyof typeof DATA_SAFE;

/** What was said and seen when a machine came in. */
export interface Intake {
  /** in the owner's words */
  readonly symptom: string;
  /** scratches, missing screws, dust: as it arrived */
  readonly condition: string;
  readonly signs: readonly Sign[];
  readonly dataSafe: DataSafe;
  /** who signs in for a load test */
  readonly signsIn: string;
  /** L/h read on arrival at the baseline’s pump setting; null where not read */
  readonly flowLph: number | null;
  /** liquid and retained sample on one photograph; missing or null: nobody compared them so */
  readonly colour?: ColourRead | null;
}

/** Days in which an owner can do without the machine, both counted. */
export interface OwnerWindow {
  readonly from: string;
  readonly to: string;
}

/** windows that an owner may give for one job */
export const MOST_WINDOWS = 6;

export interface JobInput {
  readonly loopId: string;
  /** the open follow-up that it is for; missing or null: the loop’s coolant service, where one is due */
  readonly answers?: string | null;
  /** it stands here as it is booked; missing: it comes later */
  readonly here?: boolean;
  readonly kind: BookedKind;
  /** component to be changed, where the job is about one */
  readonly partId: string | null;
  /** number of the wanted revision, where the job changes the loop; missing or null: it does not, or the part that leaves says it all */
  readonly wanted?: number | null;
  /** what will be poured; missing or null: what the loop is filled with now */
  readonly productId?: string | null;
  /** small works that go along with it; missing: none */
  readonly beside?: readonly BesideWork[];
  readonly intake: Intake;
  readonly estimate: EstimateInput;
  readonly neededBy: string | null;
  /** day on which awaited parts are expected */
  readonly partsOn: string | null;
  /** day from which the owner can do without it */
  readonly dropOffOn: string | null;
  /** days in which the owner can do without it; empty: any */
  readonly windows: readonly OwnerWindow[];
  readonly note: string;
}

const text = (most: number): Joi.StringSchema => Joi.string().trim().allow('').max(most).required();
const fields: Joi.SchemaMap = {
  kind: Joi.string()
    .valid(...BOOKED_KIND_KEYS)
    .required(),
  partId: Joi.string()
    .max(80)
    .allow(null)
    .required()
    .when('kind', {
      is: Joi.valid('partial-drain', 'part-conversion'),
      then: Joi.invalid(null).messages({ 'any.invalid': say('say which part it is about: the loop is only drained down to it') }),
    }),
  wanted: Joi.number()
    .integer()
    .min(1)
    .allow(null)
    .default(null)
    .when('kind', {
      is: 'loop-change',
      then: Joi.required()
        .invalid(null)
        .messages({
          'any.invalid': say('say which wanted drawing the loop shall become'),
          'any.required': say('say which wanted drawing the loop shall become'),
        }),
    }),
  productId: id().allow(null).default(null),
  beside: Joi.array()
    .items(Joi.string().valid(...BESIDE_KEYS))
    .unique()
    .default([])
    .custom((works: BesideWork[], helpers) => {
      const { kind } = helpers.state.ancestors[0] as { kind: BookedKind };
      const odd = works.find((work) => !mayGoBeside(kind).includes(work));
      return odd === undefined
        ? works
        : helpers.message({ custom: say('{odd} goes with no job of this kind, or belongs to it already', { odd }) });
    }),
  intake: Joi.object({
    symptom: text(2000),
    condition: text(2000),
    signs: Joi.array()
      .items(Joi.string().valid(...SIGN_KEYS))
      .unique()
      .required(),
    dataSafe: Joi.string()
      .valid(...Object.keys(DATA_SAFE))
      .required(),
    signsIn: text(120),
    flowLph: finite().greater(0).max(3000).allow(null).required(),
    colour: Joi.object(colourReadFields).allow(null).default(null),
  }).required(),
  estimate: estimateSchema.required(),
  neededBy: day().allow(null).required(),
  partsOn: day().allow(null).default(null),
  dropOffOn: day().allow(null).default(null),
  windows: Joi.array()
    .items(
      Joi.object({
        from: day().required(),
        to: day()
          .required()
          .custom((value: string, helpers) => {
            const { from } = helpers.state.ancestors[0] as OwnerWindow;
            return value >= from ? value : helpers.message({ custom: `{{#label}} must not lie before the first day, ${from}` });
          }),
      }),
    )
    .max(MOST_WINDOWS)
    .default([]),
  note: note().required(),
};
export const jobSchema = Joi.object({ ...fields, loopId: id().required(), answers: id().allow(null), here: Joi.boolean() });
export const jobEditSchema = Joi.object({ ...fields, version: rowVersion() });
export type JobEdit = Omit<JobInput, 'loopId' | 'answers' | 'here'> & { readonly version: number };

/** How an owner agreed. */
/** Ways that somebody of the workshop writes down; on the page the owner agrees alone. */
export const CONSENT_WAYS = { phone: 'by phone', 'in-person': 'in person', text: 'by text', email: 'by e-mail' } as const;
export type ConsentWay = keyof typeof CONSENT_WAYS;
export const CONSENT_WAY_KEYS = Object.keys(CONSENT_WAYS) as ConsentWay[];
/** … and how it reads, however it came about */
export const CONSENT_WORDS: Readonly<Record<ConsentWay | 'page', string>> = { ...CONSENT_WAYS, page: 'on the owner’s page' };

export interface ConsentInput {
  readonly how: ConsentWay;
  readonly words: string;
  readonly version: number;
}
export const consentSchema = Joi.object({
  how: Joi.string()
    .valid(...CONSENT_WAY_KEYS)
    .required(),
  words: text(1000),
  version: rowVersion(),
});

export interface JobStart {
  readonly benchId: string | null;
  readonly schools: Schools;
  /** runs whose joints were or will be opened, where only those are tested */
  readonly openedJoints: readonly string[];
}
export const jobStartSchema = Joi.object({
  benchId: id().allow(null).required(),
  schools: schoolsSchema.required(),
  openedJoints: Joi.array().items(Joi.string().max(80)).max(200).default([]),
});

/** What a job shall become, once its owner agrees to the estimate that goes with it. */
export interface AskedScope {
  readonly kind: JobKind;
  /** what was found, as the owner reads it */
  readonly found: string;
  /** how leaks are looked for then; missing: as before */
  readonly schools?: LeakAndWet;
  readonly at: string;
}

/** The owner is asked before anything changes. */
export type AskScopeInput = Omit<RescopeInput, 'how'>;

export interface RescopeInput {
  readonly kind: JobKind;
  /** how leaks are looked for from here on; missing: as before, where the new job opens no more than the old one */
  readonly schools?: LeakAndWet;
  readonly reason: string;
  /** what the owner agreed to now; on the page: what stands there */
  readonly estimate: EstimateInput;
  readonly how: ConsentWay | 'page';
}
const rescopeFields: Joi.SchemaMap = {
  schools: Joi.object(leakAndWetFields),
  kind: Joi.string()
    .valid(...JOB_KIND_KEYS)
    .required(),
  reason: Joi.string()
    .trim()
    .min(3)
    .max(1000)
    .required()
    .messages({ 'string.empty': say('say what was found'), 'string.min': say('say what was found') }),
  estimate: fields.estimate as Joi.Schema,
};
export const askScopeSchema = Joi.object(rescopeFields);
export const rescopeSchema = Joi.object({
  ...rescopeFields,
  how: Joi.string()
    .valid(...CONSENT_WAY_KEYS, 'page')
    .required(),
});
