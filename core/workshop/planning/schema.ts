import { say } from '../../base/words/say.js';
import Joi from 'joi';
import { KIT_KEYS, SKILL_KEYS, type KitKind, type Skill } from './capacities.js';
import { ABSENCE_WHYS, DAY_PARTS, type AbsenceWhy, type DayPart } from './shifts.js';
import { day, id, instant, rowVersion } from '../../base/checking/fields.js';

export interface ShiftsInput {
  readonly shifts: readonly { readonly weekday: number; readonly fromMinute: number; readonly toMinute: number }[];
  /** of the person */
  readonly version: number;
}
const minute = (): Joi.NumberSchema => Joi.number().integer().min(0).max(1440).required();
export const shiftsSchema = Joi.object({
  shifts: Joi.array()
    .items(
      Joi.object({ weekday: Joi.number().integer().min(1).max(7).required(), fromMinute: minute(), toMinute: minute() }).custom(
        (value: ShiftsInput['shifts'][number], helpers) =>
          value.fromMinute < value.toMinute ? value : helpers.message({ custom: say('a shift ends after it begins') }),
      ),
    )
    .max(28)
    .required(),
  version: rowVersion(),
});

export interface SkillsInput {
  readonly skills: readonly Skill[] | null;
  /** of the person */
  readonly version: number;
}
export const skillsSchema = Joi.object({
  skills: Joi.array()
    .items(Joi.string().valid(...SKILL_KEYS))
    .unique()
    .allow(null)
    .required(),
  version: rowVersion(),
});

export interface KitsInput {
  readonly kits: readonly { readonly kind: KitKind; readonly count: number }[];
  /** of the workshop */
  readonly version: number;
}
export const kitsSchema = Joi.object({
  kits: Joi.array()
    .items(
      Joi.object({
        kind: Joi.string()
          .valid(...KIT_KEYS)
          .required(),
        count: Joi.number().integer().min(0).max(100).required(),
      }),
    )
    .unique('kind')
    .required(),
  version: rowVersion(),
});

export interface AbsenceInput {
  readonly personId: string;
  readonly fromDay: string;
  readonly toDay: string;
  readonly part: DayPart;
  readonly why: AbsenceWhy;
  readonly reason: string;
}
export const absenceSchema = Joi.object({
  personId: id().required(),
  fromDay: day().required(),
  toDay: day().required(),
  part: Joi.string()
    .valid(...Object.keys(DAY_PARTS))
    .default('whole'),
  why: Joi.string()
    .valid(...Object.keys(ABSENCE_WHYS))
    .default('other'),
  reason: Joi.string().trim().allow('').max(200).required(),
}).custom((value: AbsenceInput, helpers) =>
  value.fromDay <= value.toDay ? value : helpers.message({ custom: say('the last day away does not lie before the first') }),
);

/** One job as somebody put it on the board. */
export interface SlotInput {
  readonly jobId: string;
  readonly benchId: string;
  readonly steps: readonly { readonly what: string; readonly from: string; readonly to: string; readonly personId: string | null }[];
  /** of the slot that it replaces; 0 where the job had none */
  readonly version: number;
}
export interface BoardInput {
  readonly slots: readonly SlotInput[];
  /** jobs that leave the board with it, as when a plan is taken back */
  readonly off: readonly string[];
}
/** A bench and the steps on it, as a slot and an offer hold them. */
export const placeFields: Joi.SchemaMap = {
  benchId: id().required(),
  steps: Joi.array()
    .items(
      Joi.object({
        what: Joi.string().valid('work', 'soak', 'wet test').required(),
        from: instant().required(),
        to: instant().required(),
        personId: id().allow(null).required(),
      }),
    )
    .min(1)
    .max(40)
    .required(),
};

export const boardSchema = Joi.object({
  slots: Joi.array()
    .items(
      Joi.object({
        jobId: id().required(),
        ...placeFields,
        version: Joi.number().integer().min(0).required(),
      }),
    )
    .max(500)
    .unique('jobId')
    .required(),
  off: Joi.array().items(id()).max(500).unique().default([]),
}).custom((value: BoardInput, helpers) =>
  value.slots.length + value.off.length > 0 ? value : helpers.message({ custom: say('slots: name at least one job that moves or leaves') }),
);

export interface ConfirmInput {
  readonly confirmed: boolean;
  readonly version: number;
}
/** Other hands for those that are away, as the server finds them in its own board. */
export interface StandInInput {
  readonly version: number;
}
export const standInSchema = Joi.object({ version: rowVersion() });
export const confirmSchema = Joi.object({ confirmed: Joi.boolean().required(), version: rowVersion() });
