import { volumeMl } from '../../../base/checking/fields.js';
import { formatMl } from '../../../base/units/display.js';
import { lotOnBagSchema } from '../../../workshop/lots/schema.js';
import { refusal, type EntryDefinition } from '../entry.js';
import { isPlace } from './doubt.js';
import { SWAP_ACTIONS, type SwapAction, type Swapped } from '../state.js';
import { item, oneOf, sentence, step } from './fields.js';

export interface SwappedEntry extends Swapped {
  readonly type: 'swapped';
  readonly step: string;
}

const SWAP_WORDS: Readonly<Record<SwapAction, string>> = {
  renewed: 'Seal renewed',
  replaced: 'Replaced',
  removed: 'Taken out',
  fitted: 'Fitted',
};

export const swapped: EntryDefinition<SwappedEntry> = {
  schema: {
    step,
    item: item.required(),
    action: oneOf(SWAP_ACTIONS).required(),
    text: sentence.required(),
    heldMl: volumeMl().required(),
    bag: lotOnBagSchema,
  },
  belongs: 'own-step',
  refuse: ({ item: what }, standing) =>
    standing.procedure.service || isPlace(what, standing) ? null : refusal('unknown-item', { why: 'unknown-item', name: what }),
  moves: (book, { heldMl }) => book.cameOut(heldMl, null),
  apply: ({ service }, { item: what, action, text, heldMl, bag }, made) => {
    service.swaps.push({ item: what, action, text, heldMl, ...(bag ? { bag } : {}), ...made });
    // a part that left full took its liquid along
    if (heldMl > 0) service.flows.push({ eventId: made.eventId, at: made.at, way: 'out', liquid: 'old', volumeMl: heldMl });
  },
  reads: (entry, { nameOf }) => swapWords(entry, nameOf(entry.item)),
};

export const swapWords = ({ action, text, heldMl, bag }: Swapped, name: string): string =>
  `${SWAP_WORDS[action]}: ${name}, ${text}${bag ? `, ${bag.make} lot ${bag.lot}` : ''}${heldMl > 0 ? `, ${formatMl(heldMl)} inside it` : ''}`;
