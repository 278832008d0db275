import { say } from '../../../base/words/say.js';
import { id } from '../../../base/checking/fields.js';
import { FILL_CAUSES, type FillCause } from '../../fill-troubles/causes.js';
import { refusal, remark, type EntryDefinition } from '../entry.js';
import { key, sentence } from './fields.js';

/** What was behind a trouble of filling, and what was done. */
export interface FillTroubleSolvedEntry {
  readonly type: 'fill-trouble-solved';
  readonly trouble: string;
  readonly cause: string;
  readonly fix: string;
}

export const fillTroubleSolved: EntryDefinition<FillTroubleSolvedEntry> = {
  schema: { trouble: id().required(), cause: key.required(), fix: sentence.max(300).required() },
  belongs: 'anytime',
  apply: (state, { trouble, cause, fix }, made) => {
    const found = state.fillTroubles.find(({ eventId }) => eventId === trouble);
    if (found) found.solved = { ...remark(made, fix), cause };
  },
  refuse: ({ trouble, cause }, { state }) => {
    if (!state.fillTroubles.some(({ eventId, solved }) => eventId === trouble && solved === null))
      return refusal('unknown-item', { why: 'unknown-trouble' });
    return Object.hasOwn(FILL_CAUSES, cause) ? null : refusal('unknown-item', { why: 'unknown-cause', name: cause });
  },
  reads: ({ cause, fix }) =>
    say('Filling goes on: {hasOwn}; {fix}', {
      hasOwn: Object.hasOwn(FILL_CAUSES, cause) ? FILL_CAUSES[cause as FillCause].label : cause,
      fix,
    }),
};
