import { say } from '../../../base/words/say.js';
import { finite, id } from '../../../base/checking/fields.js';
import { lotOnBagSchema } from '../../../workshop/lots/schema.js';
import { refusal, type EntryDefinition } from '../entry.js';
import { isPlace } from './doubt.js';
import type { Used } from '../state.js';
import { item, sentence, step } from './fields.js';

export interface UsedEntry extends Used {
  readonly type: 'used';
  readonly step: string;
}

export const used: EntryDefinition<UsedEntry> = {
  schema: {
    step,
    itemId: id().required(),
    itemName: sentence.max(120).required(),
    count: finite().greater(0).max(1000).required(),
    item,
    bag: lotOnBagSchema,
  },
  belongs: 'own-step',
  apply: ({ service }, { itemId, itemName, count, item: place, bag }, made) =>
    void service.used.push({ itemId, itemName, count, ...(place ? { item: place } : {}), ...(bag ? { bag } : {}), ...made }),
  refuse: ({ item: place }, standing) =>
    place === undefined || isPlace(place, standing) ? null : refusal('unknown-item', { why: 'unknown-item', name: place }),
  reads: (entry, { nameOf }) => `${usedWords(entry)}${entry.item ? say(' at {nameOf}', { nameOf: nameOf(entry.item) }) : ''}`,
  books: ({ itemId, count }) => ({ kind: 'item', itemId, count }),
};

export const usedWords = ({ itemName, count }: Used): string => say('Used: {count} × {itemName}', { count, itemName });
