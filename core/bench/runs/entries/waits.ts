import { say } from '../../../base/words/say.js';
import { formatDay } from '../../../base/units/dates.js';
import Joi from 'joi';
import { day } from '../../../base/checking/fields.js';
import { refusal, type EntryDefinition } from '../entry.js';
import { WAIT_FOR, WAIT_FOR_KEYS, type Waiting } from '../../../workshop/jobs/waitFor.js';
import { checksBeforeWaiting, hindersWaiting, STAND_CHECK_IDS, unseen, untold, waitingNow } from '../waiting.js';
import { isPast, oneOf, sentence } from './fields.js';

/** The machine leaves its bench and the run goes on later, at the same step. Written by its own request, which frees the bench. */
export interface WaitsEntry extends Waiting {
  readonly type: 'waits';
  /** what was ticked before somebody walked away */
  readonly seen: readonly string[];
}

export const waits: EntryDefinition<WaitsEntry> = {
  schema: {
    for: oneOf(WAIT_FOR_KEYS).required(),
    what: sentence
      .max(300)
      .allow('')
      .when('for', { is: 'overnight', otherwise: Joi.invalid('') })
      .required()
      .messages({
        'any.invalid': say('say what it waits for: the part, the question, the reason'),
      }),
    until: day().required(),
    lies: sentence.max(300).required(),
    seen: Joi.array().items(oneOf(STAND_CHECK_IDS)).unique().max(STAND_CHECK_IDS.length).required(),
  },
  belongs: 'log',
  // said again while it waits: another day, another shelf
  whileWaiting: true,
  apply: (state, { for: what, what: text, until, lies }, made) => {
    const { fixes, owed, causes } = untold(state);
    const told = [...fixes, ...owed, ...causes].map(({ eventId }) => eventId);
    const now = { for: what, what: text, until, lies };
    const waiting = waitingNow(state);
    if (waiting) state.waits[state.waits.length - 1] = { ...waiting, ...now };
    else state.waits.push({ ...now, ...made, resumed: null, told });
  },
  refuse: ({ until, seen }, { procedure, state, nowMs }) => {
    if (isPast(until, nowMs)) return refusal('unsafe', { why: 'wait-day-past' });
    if (waitingNow(state)) return null;
    const hindered = hindersWaiting(procedure, state, nowMs);
    if (hindered) return refusal('unsafe', hindered);
    const open = unseen(checksBeforeWaiting(state), seen);
    return open.length > 0 ? refusal('unsafe', { why: 'not-left-safe', count: open.length }) : null;
  },
  reads: ({ for: what, what: text, until, lies }) =>
    say('Waits for {what}{text}, until {formatDay}; it lies: {lies}', {
      what: WAIT_FOR[what],
      text: text ? `: ${text}` : '',
      formatDay: formatDay(until),
      lies,
    }),
};
