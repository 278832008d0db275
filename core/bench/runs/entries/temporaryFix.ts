import { say } from '../../../base/words/say.js';
import { formatDay } from '../../../base/units/dates.js';
import Joi from 'joi';
import { day } from '../../../base/checking/fields.js';
import { JOB_KIND_KEYS } from '../../../workshop/job-kinds/kinds.js';
import { USE_LIMIT_KEYS } from '../../../workshop/due-dates/facts.js';
import { USE_LIMITS } from '../../../workshop/due-dates/useLimits.js';
import { refusal, type EntryDefinition } from '../entry.js';
import type { TemporaryFix } from '../state.js';
import { isPast, key, oneOf, sentence } from './fields.js';

export interface TemporaryFixEntry extends TemporaryFix {
  readonly type: 'temporary-fix';
  /** in which step it was said; missing: at any time */
  readonly step?: string;
}

export const temporaryFix: EntryDefinition<TemporaryFixEntry> = {
  schema: {
    step: key,
    what: sentence.required(),
    awaits: sentence.required(),
    until: day().required(),
    limits: Joi.array()
      .items(oneOf(USE_LIMIT_KEYS))
      .min(1)
      .unique()
      .required()
      .messages({ 'array.min': say('a temporary fix comes with at least one limit of use') }),
    then: oneOf(JOB_KIND_KEYS),
  },
  belongs: 'anytime',
  apply: ({ service }, { what, awaits, until, limits, then }, made) =>
    void service.temporaryFixes.push({ what, awaits, until, limits, ...(then ? { then } : {}), ...made }),
  refuse: ({ until }, { nowMs }) => (isPast(until, nowMs) ? refusal('unsafe', { why: 'fix-day-past' }) : null),
  reads: ({ what, awaits, until, limits }) =>
    say('Temporary: {what}, until {awaits}, by {formatDay} at the latest; {map}', {
      what,
      awaits,
      formatDay: formatDay(until),
      map: limits.map((limit) => USE_LIMITS[limit]).join(', '),
    }),
};
