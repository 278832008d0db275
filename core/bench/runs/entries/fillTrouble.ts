import { say } from '../../../base/words/say.js';
import { note } from '../../../base/checking/fields.js';
import { FILL_SYMPTOM_KEYS, FILL_SYMPTOMS, type FillSymptom } from '../../fill-troubles/causes.js';
import { remark, type EntryDefinition } from '../entry.js';
import { oneOf } from './fields.js';

/** Something is wrong with the filling: what is seen; what is behind it is found step by step. */
export interface FillTroubleEntry {
  readonly type: 'fill-trouble';
  readonly symptom: FillSymptom;
  readonly text: string;
}

export const fillTrouble: EntryDefinition<FillTroubleEntry> = {
  schema: { symptom: oneOf(FILL_SYMPTOM_KEYS).required(), text: note().max(300).required() },
  belongs: 'anytime',
  apply: (state, { symptom, text }, made) => void state.fillTroubles.push({ ...remark(made, text), symptom, solved: null }),
  reads: ({ symptom, text }) => say('Filling: {symptom}{text}', { symptom: FILL_SYMPTOMS[symptom], text: text ? `, ${text}` : '' }),
};
