import { say } from '../../../base/words/say.js';
import Joi from 'joi';
import { remark, type EntryDefinition } from '../entry.js';
import { sentence } from './fields.js';

export interface SpillEntry {
  readonly type: 'spill';
  readonly onElectronics: boolean;
  readonly text: string;
}

export const spill: EntryDefinition<SpillEntry> = {
  schema: { onElectronics: Joi.boolean().required(), text: sentence.required() },
  belongs: 'anytime',
  whileWaiting: true,
  apply: (state, { onElectronics, text }, made) => void state.spills.push({ ...remark(made, text), onElectronics, rinsedAt: null }),
  reads: ({ onElectronics, text }) => say('Spill{say}: {text}', { say: onElectronics ? say(' on electronics') : '', text }),
};
