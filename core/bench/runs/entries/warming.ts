import { formatIn } from '../../../base/units/display.js';
import Joi from 'joi';
import { say } from '../../../base/words/say.js';
import { finite } from '../../../base/checking/fields.js';
import { bySource, stamp, type EntryDefinition } from '../entry.js';
import type { ReadingSource } from '../state.js';
import { source } from './fields.js';

/** A temperature on the way to a reading: what the curve is drawn from that says where it ends. */
export interface WarmingEntry {
  readonly type: 'warming';
  readonly sensor: string;
  readonly tempC: number;
  /** of a service, before anything was touched */
  readonly before?: boolean;
  readonly source?: ReadingSource;
}

export const warming: EntryDefinition<WarmingEntry> = {
  schema: {
    sensor: Joi.string().trim().min(1).max(80).required(),
    tempC: finite().min(-10).max(130).required(),
    before: Joi.boolean(),
    source,
  },
  belongs: ({ before }) => ({ kind: 'baseline', before: before === true }),
  apply: (state, { sensor, tempC, before = false, source: from }, made) =>
    void state.warmings.push(stamp(made, { sensor, tempC, before }, from)),
  reads: ({ sensor, tempC, source: from }) =>
    say('{sensor} at {temp}, still warming{bySource}', { sensor, temp: formatIn('°C', tempC, 1), bySource: bySource(from) }),
};
