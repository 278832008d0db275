import { finite, id } from '../../../base/checking/fields.js';
import type { EntryDefinition } from '../entry.js';
import type { Used } from '../state.js';
import { sentence, step } from './fields.js';

export interface UsedEntry extends Used {
  readonly type: 'used';
  readonly step: string;
}

export const used: EntryDefinition<UsedEntry> = {
  schema: { step, itemId: id().required(), itemName: sentence.max(120).required(), count: finite().greater(0).max(1000).required() },
  belongs: 'own-step',
  apply: ({ service }, { itemId, itemName, count }, made) => void service.used.push({ itemId, itemName, count, ...made }),
  reads: (entry) => usedWords(entry),
  books: ({ itemId, count }) => ({ kind: 'item', itemId, count }),
};

export const usedWords = ({ itemName, count }: Used): string => `Used: ${count} × ${itemName}`;
