import { id } from '../../../base/checking/fields.js';
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
  },
  refuse: ({ leak }, { state }) =>
    state.leaks.some(({ eventId }) => eventId === leak) ? null : refusal('unknown-item', { why: 'unknown-leak' }),
  reads: ({ cause, fix }) => `Leak mended: ${cause}, ${fix}`,
};
