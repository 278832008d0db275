import { say } from '../../../base/words/say.js';
import { id } from '../../../base/checking/fields.js';
import { LEAK_CAUSES, leakCauseWords } from '../../leak-finding/causes.js';
import { refusal, remark, type EntryDefinition } from '../entry.js';
import { key, sentence } from './fields.js';

export interface LeakMendedEntry {
  readonly type: 'leak-mended';
  readonly leak: string;
  readonly cause: string;
  readonly fix: string;
}

export const leakMended: EntryDefinition<LeakMendedEntry> = {
  schema: { leak: id().required(), cause: key.required(), fix: sentence.required() },
  belongs: 'anytime',
  apply: (state, { leak, cause, fix }, made) => {
    const found = state.leaks.find(({ eventId }) => eventId === leak);
    if (!found) return;
    found.mended = { ...remark(made, fix), cause };
    found.retested = null;
    found.sistersSeen = null;
  },
  // a log of an older program may hold another name; a new entry says one of those that are learned from
  refuse: ({ leak, cause }, { state }) => {
    if (!state.leaks.some(({ eventId }) => eventId === leak)) return refusal('unknown-item', { why: 'unknown-leak' });
    return Object.hasOwn(LEAK_CAUSES, cause) ? null : refusal('unknown-item', { why: 'unknown-cause', name: cause });
  },
  reads: ({ cause, fix }) => say('Leak mended: {leakCauseWords}; {fix}', { leakCauseWords: leakCauseWords(cause), fix }),
};
