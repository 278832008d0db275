import Joi from 'joi';
import { day } from '../../../base/checking/fields.js';
import { USE_LIMIT_KEYS } from '../../../workshop/due-dates/facts.js';
import { USE_LIMITS } from '../../../workshop/due-dates/useLimits.js';
import { refusal, type EntryDefinition } from '../entry.js';
import type { TemporaryFix } from '../state.js';
import { oneOf, sentence, step } from './fields.js';

export interface TemporaryFixEntry extends TemporaryFix {
  readonly type: 'temporary-fix';
  readonly step: string;
}

export const temporaryFix: EntryDefinition<TemporaryFixEntry> = {
  schema: {
    step,
    what: sentence.required(),
    awaits: sentence.required(),
    until: day().required(),
    limits: Joi.array()
      .items(oneOf(USE_LIMIT_KEYS))
      .min(1)
      .unique()
      .required()
      .messages({ 'array.min': 'a temporary fix comes with at least one limit of use' }),
  },
  belongs: 'own-step',
  apply: ({ service }, { what, awaits, until, limits }, made) => void service.temporaryFixes.push({ what, awaits, until, limits, ...made }),
  refuse: ({ until }, { procedure, nowMs }) => {
    if (!procedure.service) return refusal('unknown-item', { why: 'not-a-service' });
    return Date.parse(`${until}T23:59:59Z`) < nowMs ? refusal('unsafe', { why: 'fix-day-past' }) : null;
  },
  reads: ({ what, awaits, until, limits }) =>
    `Temporary: ${what}, until ${awaits}, by ${until} at the latest; ${limits.map((limit) => USE_LIMITS[limit]).join(', ')}`,
};
