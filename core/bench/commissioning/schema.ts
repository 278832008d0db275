import { say } from '../../base/words/say.js';
import Joi from 'joi';
import { id, note, positiveMl } from '../../base/checking/fields.js';
import { LEAK_SCHOOLS, type Schools } from '../../physics/leak-testing/schools.js';
import { schoolsSchema } from '../../physics/leak-testing/schoolsSchema.js';
import { practiceSchema, type PracticeInput } from '../practice/schema.js';

export interface RunCreate {
  readonly loopId: string;
  readonly benchId: string | null;
  readonly schools: Schools;
  /** runs that were opened, where only those are tested */
  readonly openedJoints: readonly string[];
  /** mL that left the loop when they were opened; null for an empty loop */
  readonly lostMl: number | null;
  /** against a simulated bench that hides a fault; nothing of the owner's is touched. null: in earnest */
  readonly practice: PracticeInput | null;
}
export const runCreateSchema = Joi.object({
  loopId: id().required(),
  benchId: id().allow(null).required(),
  schools: schoolsSchema.required(),
  openedJoints: Joi.array().items(Joi.string().max(80)).max(200).default([]),
  lostMl: positiveMl().allow(null).default(null),
  practice: practiceSchema.allow(null).default(null),
}).custom((value: RunCreate, helpers) =>
  // a practised service takes its joints like one in earnest: how much left is measured on the way
  LEAK_SCHOOLS[value.schools.leak].openedOnly && !value.practice?.job && (value.openedJoints.length === 0 || value.lostMl === null)
    ? helpers.message({ custom: say('Name the runs that were opened and how much left the loop: only those are tested and topped up.') })
    : value,
);

/** A unit of a loop that was never filled, tested out of its case. */
export interface UnitTestCreate {
  /** id of the pump; the reservoir that feeds it belongs to it */
  readonly pump: string;
  readonly benchId: string | null;
}
export const unitTestCreateSchema = Joi.object({ pump: Joi.string().max(80).required(), benchId: id().allow(null).required() });

export interface SignOffInput {
  /** id of the entry, made on the device */
  readonly id: string;
  readonly remark: string;
}
export const signOffSchema = Joi.object({ id: id().required(), remark: note().required() });
