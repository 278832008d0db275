import { say, sayWord } from '../../../base/words/say.js';
import Joi from 'joi';
import { note } from '../../../base/checking/fields.js';
import { CAUSE_KEYS } from '../../../workshop/due-dates/facts.js';
import { CAUSES } from '../../inspection/grade.js';
import { refusal, type EntryDefinition } from '../entry.js';
import { SUSPECTS } from '../../../workshop/lots/suspects.js';
import type { Cause } from '../state.js';
import { item, oneOf, step } from './fields.js';

export interface CauseEntry extends Cause {
  readonly type: 'cause';
  readonly step: string;
}

export const cause: EntryDefinition<CauseEntry> = {
  schema: {
    step,
    cause: oneOf(CAUSE_KEYS).required(),
    suspect: oneOf(SUSPECTS).required(),
    item: item.allow(null).required(),
    particlesStayed: Joi.boolean().required(),
    text: note().required(),
  },
  belongs: 'own-step',
  apply: ({ service }, { cause: what, suspect, item: part, particlesStayed, text }, made) => {
    // the same suspicion said again stands as it is said now; another one stands beside it
    const others = service.causes.filter((each) => each.cause !== what || each.item !== part);
    service.causes = [...others, { cause: what, suspect, item: part, particlesStayed, text, ...made }];
  },
  refuse: (entry, { procedure }) => {
    if (!procedure.service) return refusal('unknown-item', { why: 'not-a-service' });
    return entry.suspect === 'part' && entry.item === null ? refusal('unknown-item', { why: 'say-which-part' }) : null;
  },
  reads: (entry, { nameOf }) =>
    say('Suspected cause: {cause}{say}{say2}{text}', {
      cause: sayWord(CAUSES[entry.cause]),
      say: entry.suspect === 'coolant-lot' ? say(', the coolant’s lot') : entry.item ? `, ${nameOf(entry.item)}` : '',
      say2: entry.particlesStayed ? say('; particles stayed inside') : '',
      text: entry.text ? `: ${entry.text}` : '',
    }),
};
