import Joi from 'joi';
import { say } from '../../../base/words/say.js';
import { refusal, type EntryDefinition } from '../entry.js';
import type { RingRenewed } from '../state.js';
import { isPlace } from './doubt.js';
import { item, step } from './fields.js';

/** Rings and gaskets that are new: from here on each has an age of its own. */
export interface RingRenewedEntry extends RingRenewed {
  readonly type: 'ring-renewed';
  readonly step: string;
}

export const ringRenewed: EntryDefinition<RingRenewedEntry> = {
  schema: { step, places: Joi.array().items(item.required()).min(1).max(200).unique().required() },
  belongs: 'own-step',
  refuse: ({ places }, standing) => {
    const odd = places.find((each) => !isPlace(each, standing));
    return odd === undefined ? null : refusal('unknown-item', { why: 'unknown-place', name: odd });
  },
  apply: ({ service }, { places }, made) => void service.rings.push({ places, ...made }),
  reads: ({ places }, { nameOf }) => say('New rings: {places}', { places: places.map(nameOf).join(', ') }),
};
