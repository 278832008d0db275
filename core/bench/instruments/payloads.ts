import Joi from 'joi';
import { readInput, refuse } from '../../base/checking/input.js';
import { finite, instant } from '../../base/checking/fields.js';
import { INSTRUMENT_KINDS, type InstrumentKind } from './kinds.js';

/** What an instrument says of itself, retained: who joins later knows it at once. Its last will says `online: false`. */
export interface InstrumentState {
  readonly online: boolean;
  /** smallest step that can be read, in the kind's unit; null where it does not say */
  readonly resolution: number | null;
  /** a stand-in that ships with the app, not a device */
  readonly simulated: boolean;
}

export interface ReadingPayload {
  readonly value: number;
  /** ISO instant; missing: now */
  readonly at: string | null;
}

export interface SupplyCommand {
  readonly on: boolean;
}

const stateSchema = Joi.object({
  online: Joi.boolean().required(),
  unit: Joi.string().max(12),
  resolution: finite().greater(0).max(1000).allow(null),
  simulated: Joi.boolean(),
});

const readingSchema = Joi.object({
  value: finite().required(),
  unit: Joi.string().max(12),
  at: instant(),
});
const supplySchema = Joi.object({ on: Joi.boolean().required(), at: instant() });

function parse(payload: string): unknown {
  try {
    return JSON.parse(payload) as unknown;
  } catch {
    return refuse('', 'is not JSON');
  }
}

function demandUnit(kind: InstrumentKind, unit: string | undefined): void {
  const right = INSTRUMENT_KINDS[kind].unit;
  if (unit !== undefined && unit !== right) refuse('unit', `must be ${right ?? 'left out'} for ${kind} (got ${unit})`);
}

/** @throws InputProblem with the field that is wrong */
export function readState(kind: InstrumentKind, payload: string): InstrumentState {
  const { unit, ...state } = readInput<{ online: boolean; unit?: string; resolution?: number | null; simulated?: boolean }>(
    stateSchema,
    parse(payload),
  );
  demandUnit(kind, unit);
  return { online: state.online, resolution: state.resolution ?? null, simulated: state.simulated ?? false };
}

/** @throws InputProblem with the field that is wrong */
export function readReading(kind: InstrumentKind, payload: string): ReadingPayload {
  if (kind === 'supply') {
    const { on, at } = readInput<{ on: boolean; at?: string }>(supplySchema, parse(payload));
    return { value: on ? 1 : 0, at: at ?? null };
  }
  const { value, unit, at } = readInput<{ value: number; unit?: string; at?: string }>(readingSchema, parse(payload));
  demandUnit(kind, unit);
  const { least, most } = INSTRUMENT_KINDS[kind];
  if (value < least || value > most) refuse('value', `must lie between ${least} and ${most} (got ${value})`);
  return { value, at: at ?? null };
}

export const statePayload = (kind: InstrumentKind, { online, resolution, simulated }: InstrumentState): string =>
  JSON.stringify({ online, ...(INSTRUMENT_KINDS[kind].unit ? { unit: INSTRUMENT_KINDS[kind].unit } : {}), resolution, simulated });

export const readingPayload = ({ kind, value, at }: { kind: InstrumentKind; value: number; at: string }): string =>
  JSON.stringify(kind === 'supply' ? { on: value === 1, at } : { value, unit: INSTRUMENT_KINDS[kind].unit, at });
