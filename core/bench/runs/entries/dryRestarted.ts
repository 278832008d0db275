import { remark, type EntryDefinition } from '../entry.js';
import { reason } from './fields.js';

export interface DryRestartedEntry {
  readonly type: 'dry-restarted';
  readonly reason: string;
}

export const dryRestarted: EntryDefinition<DryRestartedEntry> = {
  schema: { reason: reason.required() },
  belongs: { kind: 'dry-test' },
  apply: (state, entry, made) => {
    // a new list: the old one stays with the checkpoints that hold it
    state.dryReadings = [];
    state.dryTestNumber += 1;
    state.steps.find(({ kind }) => kind === 'dry-test')?.notes.push(remark(made, `Test started again: ${entry.reason}`));
  },
  reads: (entry) => `Air test started again: ${entry.reason}`,
};
