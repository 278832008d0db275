import { say } from '../../../base/words/say.js';
import { note } from '../../../base/checking/fields.js';
import { LEAK_AMOUNT, LEAK_WHEN, type LeakAmount, type LeakWhen } from '../../leak-finding/causes.js';
import { currentKind } from '../state.js';
import { refusal, remark, type EntryDefinition } from '../entry.js';
import { isPlace } from './doubt.js';
import { key, oneOf } from './fields.js';

export interface LeakEntry {
  readonly type: 'leak';
  readonly at: string;
  readonly when: LeakWhen;
  readonly amount: LeakAmount;
  readonly text: string;
}

export const leak: EntryDefinition<LeakEntry> = {
  schema: { at: key.required(), when: oneOf(LEAK_WHEN).required(), amount: oneOf(LEAK_AMOUNT).required(), text: note().required() },
  belongs: 'anytime',
  whileWaiting: true,
  apply: (state, { at: where, when, amount, text }, made) =>
    void state.leaks.push({
      ...remark(made, text),
      where,
      when,
      amount,
      inAir: currentKind(state) === 'dry-test',
      mended: null,
      sistersSeen: null,
      retested: null,
      retests: [],
    }),
  refuse: ({ at }, standing) => (isPlace(at, standing) ? null : refusal('unknown-item', { why: 'unknown-place', name: at })),
  reads: ({ at, amount, text }, { nameOf }) =>
    say('Leak found at {nameOf}: a {amount}{text}', { nameOf: nameOf(at), amount, text: text ? `, ${text}` : '' }),
};
