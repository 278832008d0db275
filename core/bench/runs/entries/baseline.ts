import Joi from 'joi';
import { baselineSchema } from '../../../physics/diagnosis/readingSchema.js';
import type { BaselineReading } from '../../../physics/diagnosis/reading.js';
import { stamp, type EntryDefinition } from '../entry.js';

export interface BaselineEntry {
  readonly type: 'baseline';
  readonly reading: BaselineReading;
  /** of a service, before anything was touched */
  readonly before?: boolean;
}

export const baseline: EntryDefinition<BaselineEntry> = {
  schema: { reading: baselineSchema.required(), before: Joi.boolean() },
  belongs: ({ before }) => ({ kind: 'baseline', before: before === true }),
  apply: (state, { reading, before }, made) => void (before ? state.befores : state.baselines).push(stamp(made, reading, 'hand')),
  reads: ({ reading, before }) =>
    `${before ? 'Before' : 'Baseline'}, ${reading.setting}: ${reading.sensor} ${reading.partC.toFixed(1)} °C in a room of ${reading.roomC.toFixed(1)} °C`,
};
