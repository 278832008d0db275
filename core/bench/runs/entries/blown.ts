import { say } from '../../../base/words/say.js';
import type { EntryDefinition } from '../entry.js';
import { step } from './fields.js';

/** Somebody blew through with the mouth: warned of, and done all the same. What came with it grows, so it is looked at early. */
export interface BlownEntry {
  readonly type: 'blown';
  readonly step: string;
}

export const blown: EntryDefinition<BlownEntry> = {
  schema: { step },
  belongs: 'own-step',
  apply: ({ service }, _entry, made) => {
    service.blownByMouth.push(made);
  },
  reads: () => say('Blown through by mouth: hands and mouth washed, and an early look for growth'),
};
