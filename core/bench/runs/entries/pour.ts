import { say } from '../../../base/words/say.js';
import Joi from 'joi';
import { positiveMl } from '../../../base/checking/fields.js';
import { formatMl } from '../../../base/units/display.js';
import { ownJugMl } from '../../../physics/contents/ledger.js';
import { AGREES_WITHIN_SD, jugSdMl } from '../../../physics/measuring/errors.js';
import { bySource, refusal, stamp, type EntryDefinition } from '../entry.js';
import { doubtsAgainst, leaksAgainst, loadsAgainst, sealsAgainst } from '../locks.js';
import { drawnJugMl } from '../drawDown.js';
import type { PourFrom, ReadingSource } from '../state.js';
import { oneOf, source } from './fields.js';

export interface PourEntry {
  readonly type: 'pour';
  readonly volumeMl: number;
  /** the hand stopped at the fill mark */
  readonly toMark?: boolean;
  /** put back: `own-jug`, out of this job’s own jug, as old as it was; `drawn-off`, what this run drew off before; missing: fresh, from the lot on the bench */
  readonly from?: PourFrom;
  readonly source?: ReadingSource;
}

const FROM_WORDS: Readonly<Record<PourFrom, string>> = { 'own-jug': ' out of its own jug', 'drawn-off': ' of what was drawn down' };

export const pour: EntryDefinition<PourEntry> = {
  schema: {
    volumeMl: positiveMl().max(20_000).required(),
    toMark: Joi.boolean(),
    from: oneOf(['own-jug', 'drawn-off']).optional(),
    source,
  },
  belongs: { kind: 'fill' },
  moves: (book, { volumeMl, toMark }) => book.pour(volumeMl, { toMark }),
  apply: (state, { volumeMl, from, source: by }, made) => {
    state.pours.push({ ...stamp(made, volumeMl, by), ...(from ? { from } : {}) });
    state.service.flows.push({ eventId: made.eventId, at: made.at, way: 'in', liquid: from === 'own-jug' ? 'old' : 'coolant', volumeMl });
  },
  refuse: ({ volumeMl, from }, { state }) => {
    if (!from) return null;
    const jugMl = from === 'own-jug' ? ownJugMl(state.service.flows) : drawnJugMl(state);
    return volumeMl > jugMl + AGREES_WITHIN_SD * jugSdMl(jugMl) ? refusal('unsafe', { why: 'jug-holds-less', ml: volumeMl, jugMl }) : null;
  },
  locks: (_entry, { procedure, state }) =>
    procedure.facts ? [...loadsAgainst(procedure, state), ...sealsAgainst(state), ...doubtsAgainst(state), ...leaksAgainst(state)] : [],
  reads: ({ volumeMl, toMark, from, source: by }) =>
    `${from ? say('Put back') : say('Poured')} ${formatMl(volumeMl)}${from ? say(FROM_WORDS[from]) : ''}${toMark ? say(', up to the mark') : ''}${bySource(by)}`,
  // what a simulated bench pours is no liquid
  books: ({ volumeMl, from, source: by }, { coolant }) =>
    coolant?.lotId && !from && by !== 'simulated' ? { kind: 'coolant', lotId: coolant.lotId, ml: volumeMl } : null,
};
