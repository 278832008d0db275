import { volumeMl } from '../../../base/checking/fields.js';
import { refusal, type EntryDefinition } from '../entry.js';
import { swapWords, tookAlong } from './swapped.js';
import { forgetPlaces } from '../state.js';
import { item, sentence, step } from './fields.js';

/** A part was left out of the loop: from here on the loop, its book and its refill are those without it. */
export interface BypassedEntry {
  readonly type: 'bypassed';
  readonly step: string;
  readonly item: string;
  /** the tube that ended at it on its far side, and is no more */
  readonly goneTube: string;
  /** where it lies now */
  readonly text: string;
  /** mL that left inside it: as measured, or as the book has it */
  readonly heldMl: number;
}

export const bypassed: EntryDefinition<BypassedEntry> = {
  schema: { step, item: item.required(), goneTube: item.required(), text: sentence.required(), heldMl: volumeMl().required() },
  belongs: 'own-step',
  // it is written by its own request, so that loop and steps change with it
  refuse: () => refusal('unsafe', { why: 'bypass-elsewhere' }),
  moves: (book, { item: part, heldMl }) => book.leftWith(part, heldMl),
  apply: (state, { item: what, goneTube, text, heldMl }, made, procedure) => {
    const { service } = state;
    service.swaps.push({ item: what, action: 'bypassed', text, heldMl, ...made });
    if (heldMl > 0) tookAlong(state, heldMl, made, procedure);
    forgetPlaces(state, [what], [goneTube]);
  },
  // the tube on its far side is one with the tube that led to it
  carriesOver: ({ item: what, goneTube }, { twin }) =>
    new Map((twin?.loop.tubes ?? []).filter(({ id, from, to }) => id !== goneTube && (from[0] === what || to[0] === what)).map(({ id }) => [goneTube, id])), // prettier-ignore
  reads: ({ item: what, text, heldMl }, { nameOf }) => swapWords({ item: what, action: 'bypassed', text, heldMl }, nameOf(what)),
};
