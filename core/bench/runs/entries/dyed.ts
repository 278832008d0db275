import type Joi from 'joi';
import { say } from '../../../base/words/say.js';
import { dyeFields } from '../../../machine/liquids/dye.js';
import { refusal, type EntryDefinition } from '../entry.js';
import type { Dyed } from '../state.js';

/** Dye went in, last and little: from here on the sample of the coolant's lot is no reference for this loop. */
export interface DyedEntry extends Dyed {
  readonly type: 'dyed';
}

export const dyed: EntryDefinition<DyedEntry> = {
  schema: dyeFields as Joi.SchemaMap,
  belongs: 'anytime',
  apply: (state, { name, drops }, made) => void state.dyes.push({ name, drops, ...made }),
  // into a loop that holds nothing it stays where it falls
  refuse: (_entry, { state, procedure }) =>
    state.pours.length === 0 && !procedure.service?.inside ? refusal('unsafe', { why: 'dye-last' }) : null,
  reads: ({ name, drops }) => say('Dyed: {drops} drops of {name}', { drops, name }),
};
