import Joi from 'joi';
import { say } from '../../../base/words/say.js';
import { finite } from '../../../base/checking/fields.js';
import { stamp, type EntryDefinition } from '../entry.js';

/** A temperature on the way to a reading: what the curve is drawn from that says where it ends. */
export interface WarmingEntry {
  readonly type: 'warming';
  readonly sensor: string;
  readonly tempC: number;
  /** of a service, before anything was touched */
  readonly before?: boolean;
}

export const warming: EntryDefinition<WarmingEntry> = {
  schema: { sensor: Joi.string().trim().min(1).max(80).required(), tempC: finite().min(-10).max(130).required(), before: Joi.boolean() },
  belongs: ({ before }) => ({ kind: 'baseline', before: before === true }),
  apply: (state, { sensor, tempC, before = false }, made) => void state.warmings.push(stamp(made, { sensor, tempC, before }, 'hand')),
  reads: ({ sensor, tempC }) => say('{sensor} at {temp} °C, still warming', { sensor, temp: tempC.toFixed(1) }),
};
