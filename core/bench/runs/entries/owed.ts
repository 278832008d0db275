import { say } from '../../../base/words/say.js';
import { formatDay } from '../../../base/units/dates.js';
import { day } from '../../../base/checking/fields.js';
import { OWED, OWED_KEYS } from '../../../workshop/due-dates/owed.js';
import { refusal, type EntryDefinition } from '../entry.js';
import type { Owed } from '../state.js';
import { isPast, oneOf, sentence } from './fields.js';

/** What stays to be done after the run: it opens a follow-up of its own. */
export interface OwedEntry extends Owed {
  readonly type: 'owed';
}

export const owed: EntryDefinition<OwedEntry> = {
  schema: { kind: oneOf(OWED_KEYS).required(), what: sentence.max(300).required(), until: day().required() },
  belongs: 'anytime',
  apply: (state, { kind, what, until }, made) => void state.owed.push({ kind, what, until, ...made }),
  refuse: ({ until }, { nowMs }) => (isPast(until, nowMs) ? refusal('unsafe', { why: 'fix-day-past' }) : null),
  reads: ({ kind, what, until }) => say('{kind}: {what}, by {formatDay}', { kind: OWED[kind], what, formatDay: formatDay(until) }),
};
