import { say } from '../../../base/words/say.js';
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
    say('{say}, {setting}: {sensor} {partC} °C in a room of {roomC} °C', {
      say: before ? say('Before') : say('Baseline'),
      setting: reading.setting,
      sensor: reading.sensor,
      partC: reading.partC.toFixed(1),
      roomC: reading.roomC.toFixed(1),
    }),
};
