import { formatIn } from '../../../base/units/display.js';
import Joi from 'joi';
import { say } from '../../../base/words/say.js';
import { readingsTogether, type AlsoRead, type BaselineReading } from '../../../physics/diagnosis/reading.js';
import { alsoReadSchema, baselineSchema } from '../../../physics/diagnosis/readingSchema.js';
import { stamp, type EntryDefinition } from '../entry.js';

export interface BaselineEntry {
  readonly type: 'baseline';
  readonly reading: BaselineReading;
  /** other sensors at the same moment, under the same conditions */
  readonly others?: readonly AlsoRead[];
  /** of a service, before anything was touched */
  readonly before?: boolean;
}

/** parts that one machine is read at together */
const MOST_SENSORS = 12;

export const baseline: EntryDefinition<BaselineEntry> = {
  schema: { reading: baselineSchema.required(), others: Joi.array().items(alsoReadSchema).max(MOST_SENSORS), before: Joi.boolean() },
  // what an old cooler did is known long before the loop is closed
  belongs: ({ before, reading }) => (reading.oldCooler ? 'anytime' : { kind: 'baseline', before: before === true }),
  apply: (state, { reading, others = [], before }, made) => {
    const kept = before || reading.oldCooler ? state.befores : state.baselines;
    kept.push(...readingsTogether(reading, others).map((each) => stamp(made, each, 'hand')));
  },
  reads: ({ reading, others = [], before }) =>
    say('{say}, {setting}: {sensors} in a room of {room}', {
      say: reading.oldCooler ? say('With the old cooler') : before ? say('Before') : say('Baseline'),
      setting: reading.setting,
      sensors: [reading, ...others].map(({ sensor, partC }) => `${sensor} ${formatIn('°C', partC, 1)}`).join(', '),
      room: formatIn('°C', reading.roomC, 1),
    }),
};
