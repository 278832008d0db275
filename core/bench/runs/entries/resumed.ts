import { say } from '../../../base/words/say.js';
import Joi from 'joi';
import { beginDryTest, judgeDryTest } from '../dryTest.js';
import { refusal, remark, type EntryDefinition } from '../entry.js';
import { currentKind } from '../state.js';
import { checksBeforeGoingOn, STAND_CHECK_IDS, unseen, waitingNow } from '../waiting.js';
import { oneOf } from './fields.js';

/** The machine is back on a bench: the run goes on at the step where it stopped. Written by its own request, which takes the bench. */
export interface ResumedEntry {
  readonly type: 'resumed';
  /** what was looked at before hands went on */
  readonly seen: readonly string[];
}

const MS_PER_DAY = 86_400_000;

export const resumed: EntryDefinition<ResumedEntry> = {
  schema: { seen: Joi.array().items(oneOf(STAND_CHECK_IDS)).unique().max(STAND_CHECK_IDS.length).required() },
  belongs: 'log',
  whileWaiting: true,
  moves: (book, _entry, before, _procedure, { at }) => {
    const since = waitingNow(before)?.at;
    if (since !== undefined) book.stood(Math.max(0, (Date.parse(at) - Date.parse(since)) / MS_PER_DAY));
  },
  apply: (state, _entry, made, procedure) => {
    const wait = waitingNow(state);
    if (!wait) return;
    state.waits[state.waits.length - 1] = { ...wait, resumed: made };
    // its air was let off: what was read belongs to a test that is over, unless it had passed
    const judged = currentKind(state) === 'dry-test' ? judgeDryTest(procedure, state) : null;
    if (!judged || judged.verdict === 'pass') return;
    beginDryTest(procedure, state, remark(made, say('Test started again: the machine had waited off the bench')), { airIsOut: true });
  },
  refuse: ({ seen }, { state }) => {
    if (!waitingNow(state)) return refusal('unknown-item', { why: 'not-waiting' });
    const open = unseen(checksBeforeGoingOn(state), seen);
    return open.length > 0 ? refusal('unsafe', { why: 'not-looked-at', count: open.length }) : null;
  },
  reads: () => say('Back on a bench: it goes on where it stopped'),
};
