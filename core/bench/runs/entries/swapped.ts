import { say } from '../../../base/words/say.js';
import { volumeMl } from '../../../base/checking/fields.js';
import { formatMl } from '../../../base/units/display.js';
import { lotOnBagSchema } from '../../../workshop/lots/schema.js';
import { refusal, type EntryDefinition } from '../entry.js';
import { isPlace } from './doubt.js';
import type { Procedure } from '../procedure.js';
import { SWAP_ACTIONS, type Made, type RunState, type SwapAction, type Swapped } from '../state.js';
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
  bypassed: 'Left out of the loop',
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
  // of a part that comes out of a changed loop it is known where its liquid stood
  moves: (book, { item: what, heldMl }, _state, { service }) =>
    service?.change?.out.some(({ id }) => id === what) ? book.leftWith(what, heldMl) : book.cameOut(heldMl, null),
  apply: ({ service, outflows }, { item: what, action, text, heldMl, bag }, made, procedure) => {
    service.swaps.push({ item: what, action, text, heldMl, ...(bag ? { bag } : {}), ...made });
    // a part that left full took its liquid along
    if (heldMl > 0) tookAlong({ service, outflows }, heldMl, made, procedure);
  },
  reads: (entry, { nameOf }) => swapWords(entry, nameOf(entry.item)),
};

/** What left inside a part: in a service of what was there, in a build of what was poured. */
export function tookAlong(
  { service, outflows }: Pick<RunState, 'service' | 'outflows'>,
  volumeMl: number,
  made: Made,
  procedure: Procedure,
): void {
  const { eventId, at } = made;
  if (procedure.service) service.flows.push({ eventId, at, way: 'out', liquid: 'old', volumeMl });
  else outflows.push({ eventId, at, way: 'drawn-off', volumeMl });
}

export const swapWords = ({ action, text, heldMl, bag }: Swapped, name: string): string =>
  `${say(SWAP_WORDS[action])}: ${name}, ${text}${bag ? say(', {make} lot {lot}', { make: bag.make, lot: bag.lot }) : ''}${heldMl > 0 ? say(', {formatMl} inside it', { formatMl: formatMl(heldMl) }) : ''}`;
