import Joi from 'joi';
import { finite } from '../../base/checking/fields.js';
import type { LoadReading } from '../../physics/diagnosis/loadReading.js';

/** A reading under load, as the contract writes it. */

export const temperature = (): Joi.NumberSchema => finite().min(-60).max(300);
const byBlock = (value: Joi.NumberSchema): Joi.ObjectSchema => Joi.object().pattern(Joi.string().min(1).max(120), value).max(200);
const share = (): Joi.NumberSchema => finite().min(0).max(1);
const words = (): Joi.StringSchema => Joi.string().allow('').max(200);
export const readingSchema = Joi.object({
  room_c: temperature().required(),
  powers_w: byBlock(finite().min(0).max(20_000)).required(),
  parts_c: byBlock(temperature()).required(),
  coolant_c: temperature(),
  flow_lph: finite().min(0).max(20_000),
  pump_speed: share(),
  fan_speed: share(),
  workload: words(),
  sensor: words(),
  statistic: words(),
  panels: words(),
  minutes: finite().min(0).max(1e6),
  reached_fraction: share(),
  changed: Joi.array().items(Joi.string().max(120)).max(200),
});

export interface ReadingDocument {
  room_c: number;
  powers_w: Record<string, number>;
  parts_c: Record<string, number>;
  coolant_c?: number;
  flow_lph?: number;
  pump_speed?: number;
  fan_speed?: number;
  workload?: string;
  sensor?: string;
  statistic?: string;
  panels?: string;
  minutes?: number;
  reached_fraction?: number;
  changed?: string[];
}

export const asReading = (document: ReadingDocument): LoadReading => ({
  roomC: document.room_c,
  powersW: document.powers_w,
  partsC: document.parts_c,
  coolantC: document.coolant_c,
  flowLph: document.flow_lph,
  pumpSpeed: document.pump_speed,
  fanSpeed: document.fan_speed,
  workload: document.workload,
  sensor: document.sensor,
  statistic: document.statistic,
  panels: document.panels,
  minutes: document.minutes,
  reachedFraction: document.reached_fraction,
  changed: document.changed,
});
