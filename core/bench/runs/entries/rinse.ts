import { say, sayWord } from '../../../base/words/say.js';
import Joi from 'joi';
import { positiveMl } from '../../../base/checking/fields.js';
import { formatMl } from '../../../base/units/display.js';
import { RINSE_LIQUIDS, RINSE_WORDS } from '../../../machine/liquids/rinsing.js';
import { RINSE_AS } from '../../../physics/contents/ledger.js';
import type { EntryDefinition } from '../entry.js';
import { leaksAgainst, loadsAgainst, sealsAgainst } from '../locks.js';
import type { Rinsed } from '../state.js';
import { oneOf, step } from './fields.js';
import { onlyInService } from './service.js';

export interface RinseEntry extends Rinsed {
  readonly type: 'rinse';
  readonly step: string;
  /** the hand stopped at the fill mark */
  readonly toMark?: boolean;
}

export const rinse: EntryDefinition<RinseEntry> = {
  schema: { step, liquid: oneOf(RINSE_LIQUIDS).required(), volumeMl: positiveMl().max(20_000).required(), toMark: Joi.boolean() },
  belongs: 'own-step',
  moves: (book, { volumeMl, toMark }) => book.pour(volumeMl, { toMark }),
  apply: ({ service }, { liquid, volumeMl }, made) => {
    service.rinses.push({ liquid, volumeMl, ...made });
    service.flows.push({ eventId: made.eventId, at: made.at, way: 'in', liquid: RINSE_AS[liquid], volumeMl });
  },
  refuse: onlyInService,
  locks: ({ liquid }, { procedure, state }) => [
    ...sealsAgainst(state),
    ...(liquid !== 'cleaner' && procedure.facts ? [...loadsAgainst(procedure, state), ...leaksAgainst(state)] : []),
  ],
  reads: ({ liquid, volumeMl }) =>
    say('In: {formatMl} of {liquid}', { formatMl: formatMl(volumeMl), liquid: sayWord(RINSE_WORDS[liquid]) }),
};
