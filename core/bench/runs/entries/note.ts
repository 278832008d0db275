import { say } from '../../../base/words/say.js';
import { note as noteText } from '../../../base/checking/fields.js';
import { remark, type EntryDefinition } from '../entry.js';
import { step } from './fields.js';

export interface NoteEntry {
  readonly type: 'note';
  readonly step: string;
  readonly text: string;
}

export const note: EntryDefinition<NoteEntry> = {
  schema: { step, text: noteText().trim().min(1).disallow('').required() },
  belongs: 'own-step',
  whileWaiting: true,
  ahead: true,
  apply: (state, entry, made) => state.steps.find(({ id }) => id === entry.step)?.notes.push(remark(made, entry.text)),
  reads: ({ text }) => say('Note: {text}', { text }),
};
