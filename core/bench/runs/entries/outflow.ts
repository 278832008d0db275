import { positiveMl } from '../../../base/checking/fields.js';
import { formatMl } from '../../../base/units/display.js';
import type { EntryDefinition } from '../entry.js';
import type { OutflowWay } from '../state.js';
import { oneOf } from './fields.js';

/** How liquid left that was poured: it is not inside. */
export const OUTFLOWS: readonly OutflowWay[] = ['ran-over', 'drawn-off', 'spilled'];

export const OUTFLOW_WORDS: Readonly<Record<OutflowWay, string>> = {
  'ran-over': 'Ran over',
  'drawn-off': 'Drawn off',
  spilled: 'Spilled',
};

export interface OutflowEntry {
  readonly type: 'outflow';
  readonly way: OutflowWay;
  readonly volumeMl: number;
}

export const outflow: EntryDefinition<OutflowEntry> = {
  schema: { way: oneOf(OUTFLOWS).required(), volumeMl: positiveMl().max(20_000).required() },
  belongs: 'anytime',
  moves: (book, { way, volumeMl }) => (way === 'drawn-off' ? book.drawnOff(volumeMl) : book.ranOver(volumeMl)),
  apply: (state, { way, volumeMl }, { eventId, at }) => {
    state.outflows.push({ eventId, at, way, volumeMl });
    state.service.flows.push({ eventId, at, way: way === 'drawn-off' ? 'out' : 'lost', liquid: 'coolant', volumeMl });
  },
  reads: ({ way, volumeMl }) => `${OUTFLOW_WORDS[way]}: about ${formatMl(volumeMl)}`,
};
