import { say } from '../../../base/words/say.js';
import Joi from 'joi';
import { finite } from '../../../base/checking/fields.js';
import { formatMl } from '../../../base/units/display.js';
import { refusal, stamp, type EntryDefinition } from '../entry.js';
import type { PartTest } from '../state.js';
import { isPlace } from './doubt.js';
import { key, sentence } from './fields.js';

export interface PartTestEntry extends PartTest {
  readonly type: 'part-test';
}

export const partTest: EntryDefinition<PartTestEntry> = {
  schema: {
    part: key.required(),
    tight: Joi.boolean().required(),
    how: sentence.required(),
    leftMl: finite().min(0).max(5000).required(),
  },
  belongs: 'anytime',
  // of a unit tested on its own the book of this very run says what stays inside
  moves: (book, { part, leftMl }, _before, { unit }) => (unit ? undefined : book.broughtIn(part, leftMl)),
  apply: (state, { part, tight, how, leftMl }, made) => {
    state.partTests.push(stamp(made, { part, tight, how, leftMl }, 'hand'));
    for (const doubt of state.doubts) if (doubt.part === part) doubt.answer = { tight, at: made.at };
  },
  refuse: ({ part }, standing) => (isPlace(part, standing) ? null : refusal('unknown-item', { why: 'unknown-part', name: part })),
  reads: ({ part, tight, how, leftMl }, { nameOf }) =>
    say('Tested alone: {nameOf} is {tight} ({how}){say}', {
      nameOf: nameOf(part),
      tight: tight ? 'tight' : 'leaking',
      how,
      say: leftMl > 0 ? say(', {formatMl} stay inside', { formatMl: formatMl(leftMl) }) : '',
    }),
};
