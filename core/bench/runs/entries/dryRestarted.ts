import { say } from '../../../base/words/say.js';
import { beginDryTest } from '../dryTest.js';
import { remark, type EntryDefinition } from '../entry.js';
import { reason } from './fields.js';

export interface DryRestartedEntry {
  readonly type: 'dry-restarted';
  readonly reason: string;
}

export const dryRestarted: EntryDefinition<DryRestartedEntry> = {
  schema: { reason: reason.required() },
  belongs: { kind: 'dry-test' },
  apply: (state, entry, made, procedure) =>
    beginDryTest(procedure, state, remark(made, say('Test started again: {reason}', { reason: entry.reason }))),
  reads: (entry) => say('Air test started again: {reason}', { reason: entry.reason }),
};
