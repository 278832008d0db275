import Joi from 'joi';
import { positiveMl } from '../../../base/checking/fields.js';
import { formatMl } from '../../../base/units/display.js';
import { bySource, stamp, type EntryDefinition } from '../entry.js';
import { doubtsAgainst, leaksAgainst } from '../locks.js';
import type { ReadingSource } from '../state.js';
import { source } from './fields.js';

export interface PourEntry {
  readonly type: 'pour';
  readonly volumeMl: number;
  /** the hand stopped at the fill mark */
  readonly toMark?: boolean;
  readonly source?: ReadingSource;
}

export const pour: EntryDefinition<PourEntry> = {
  schema: { volumeMl: positiveMl().max(20_000).required(), toMark: Joi.boolean(), source },
  belongs: { kind: 'fill' },
  moves: (book, { volumeMl, toMark }) => book.pour(volumeMl, { toMark }),
  apply: (state, { volumeMl, source: from }, made) => {
    state.pours.push(stamp(made, volumeMl, from));
    state.service.flows.push({ eventId: made.eventId, at: made.at, way: 'in', liquid: 'coolant', volumeMl });
  },
  locks: (_entry, { procedure, state }) => (procedure.facts ? [...doubtsAgainst(state), ...leaksAgainst(state)] : []),
  reads: ({ volumeMl, toMark, source: from }) => `Poured ${formatMl(volumeMl)}${toMark ? ', up to the mark' : ''}${bySource(from)}`,
  // what a simulated bench pours is no liquid
  books: ({ volumeMl, source: from }, { coolant }) =>
    coolant?.lotId && from !== 'simulated' ? { kind: 'coolant', lotId: coolant.lotId, ml: volumeMl } : null,
};
