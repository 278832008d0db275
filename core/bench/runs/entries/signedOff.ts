import { say } from '../../../base/words/say.js';
import { note } from '../../../base/checking/fields.js';
import { refusal, remark, type EntryDefinition } from '../entry.js';
import { failuresAgainst } from '../locks.js';
import { currentKind } from '../state.js';

export interface SignedOffEntry {
  readonly type: 'signed-off';
  readonly remark: string;
}

export const signedOff: EntryDefinition<SignedOffEntry> = {
  schema: { remark: note().required() },
  belongs: { kind: 'sign-off' },
  apply: (state, entry, made) => {
    state.signedOff = remark(made, entry.remark);
    for (const step of state.steps) step.status = 'done';
  },
  refuse: (_entry, { state }) => (currentKind(state) === 'sign-off' ? null : refusal('too-early', { why: 'steps-before-sign-off' })),
  locks: (_entry, { procedure, state }) => (procedure.facts ? failuresAgainst(procedure, state) : []),
  reads: (entry) => say('Signed off{remark}', { remark: entry.remark ? `: ${entry.remark}` : '' }),
};
