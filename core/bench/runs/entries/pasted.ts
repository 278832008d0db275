import Joi from 'joi';
import { say } from '../../../base/words/say.js';
import { PASTE_MEDIA, PASTE_MEDIUM_KEYS } from '../../../workshop/due-dates/paste.js';
import { refusal, type EntryDefinition } from '../entry.js';
import type { Pasted } from '../state.js';
import { isPlace } from './doubt.js';
import { item, oneOf, sentence, step } from './fields.js';

/** Blocks that went back on something new: from here on their paste has an age. */
export interface PastedEntry extends Pasted {
  readonly type: 'pasted';
  readonly step: string;
}

export const pasted: EntryDefinition<PastedEntry> = {
  schema: {
    step,
    items: Joi.array().items(item.required()).min(1).max(40).unique().required(),
    medium: oneOf(PASTE_MEDIUM_KEYS).required(),
    product: sentence.max(120).allow('').required(),
  },
  belongs: 'own-step',
  refuse: ({ items }, standing) => {
    const odd = items.find((each) => !isPlace(each, standing));
    return odd === undefined ? null : refusal('unknown-item', { why: 'unknown-item', name: odd });
  },
  apply: ({ service }, { items, medium, product }, made) => void service.pastes.push({ items, medium, product, ...made }),
  reads: ({ items, medium, product }, { nameOf }) =>
    say('New {medium} under {blocks}{product}', {
      medium: say(PASTE_MEDIA[medium].label),
      blocks: items.map(nameOf).join(', '),
      product: product ? `: ${product}` : '',
    }),
};
