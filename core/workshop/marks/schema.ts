import Joi from 'joi';
import { day, finite, id } from '../../base/checking/fields.js';
import { HEAT_CAUSES, type HeatCause } from '../../physics/diagnosis/causes.js';

/** What hands do to a part that moves its readings. Fills and cleanings stand elsewhere. */
export const HAND_MARKS = ['paste', 'part'] as const;
export type HandMark = (typeof HAND_MARKS)[number];

export interface MarkInput {
  readonly kind: HandMark;
  /** component it was done to; null: all blocks */
  readonly part: string | null;
  readonly on: string;
}
const part = (): Joi.StringSchema => Joi.string().min(1).max(120).allow(null).required();
export const markSchema = Joi.object({
  kind: Joi.string()
    .valid(...HAND_MARKS)
    .required(),
  part: part(),
  on: day().required(),
});

/** Pump and fans as they are left, 0 to 1; null: not noted. */
export interface KeptSettingInput {
  readonly pumpSpeed: number | null;
  readonly fanSpeed: number | null;
  /** by name; missing: nobody named it */
  readonly profile?: string | null;
}
export interface KeptSetting extends KeptSettingInput {
  readonly on: string;
  readonly by: string;
}
const share = (): Joi.NumberSchema => finite().min(0).max(1).allow(null).required();
export const keptSettingSchema = Joi.object({
  pumpSpeed: share(),
  fanSpeed: share(),
  profile: Joi.string().trim().min(1).max(40).allow(null),
});

/** The level against its mark, machine standing and cold. */
export interface LevelInput {
  readonly loopId: string;
  readonly on: string;
  /** mm above the mark; negative below */
  readonly mm: number;
}
export const levelSchema = Joi.object({ loopId: id().required(), on: day().required(), mm: finite().min(-500).max(500).required() });

/** What was found to be the matter, once somebody had looked. */
export interface ConfirmedInput {
  readonly cause: HeatCause;
  /** component that it sits at; null: the whole loop */
  readonly part: string | null;
  readonly on: string;
}
export const confirmedSchema = Joi.object({
  cause: Joi.string()
    .valid(...HEAT_CAUSES)
    .required(),
  part: part(),
  on: day().required(),
});
