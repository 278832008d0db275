import Joi from 'joi';
import { say } from '../../../base/words/say.js';
import { finite } from '../../../base/checking/fields.js';
import { formatIn, formatKpa } from '../../../base/units/display.js';
import { MOST_GAUGE_KPA } from '../../../physics/leak-testing/defaults.js';
import { refusal, stamp, type EntryDefinition } from '../entry.js';
import { pressureAgainst } from '../locks.js';
import type { GroupReading } from '../state.js';
import { isPlace } from './doubt.js';
import { key } from './fields.js';

/** The gauge at parts that are joined outside the case, under air on their own: they are no part of the loop yet. */
export interface GroupReadingEntry extends GroupReading {
  readonly type: 'group-reading';
}

export const groupReading: EntryDefinition<GroupReadingEntry> = {
  schema: {
    parts: Joi.array().items(key.required()).min(1).max(40).unique().required(),
    gaugeKpa: finite().min(0).max(200).required(),
    tempC: finite().min(-10).max(60).required(),
  },
  belongs: 'anytime',
  refuse: ({ parts }, standing) => {
    const odd = parts.find((each) => !isPlace(each, standing));
    return odd === undefined ? null : refusal('unknown-item', { why: 'unknown-part', name: odd });
  },
  apply: (state, { parts, gaugeKpa, tempC }, made) => void state.groupReadings.push(stamp(made, { parts, gaugeKpa, tempC }, 'hand')),
  // the weakest part of the loop may be one of them
  locks: ({ gaugeKpa }, { procedure: { facts } }) => pressureAgainst(facts ?? { mostGaugeKpa: MOST_GAUGE_KPA, weakest: null }, gaugeKpa),
  reads: ({ parts, gaugeKpa, tempC }, { nameOf }) =>
    say('Joined outside, {parts}: gauge {formatKpa} at {temp}', {
      parts: parts.map(nameOf).join(', '),
      formatKpa: formatKpa(gaugeKpa),
      temp: formatIn('°C', tempC, 1),
    }),
};
