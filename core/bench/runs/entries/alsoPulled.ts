import { say } from '../../../base/words/say.js';
import { leadBeside, PULLED } from '../checkIds.js';
import { refusal, type EntryDefinition } from '../entry.js';
import { stepOf, stepThat } from '../procedure.js';
import type { AlsoPulled } from '../state.js';
import { key, sentence, step } from './fields.js';

/** A connector that no sheet knew, pulled and written down: it comes back by name like the others. */
export interface AlsoPulledEntry extends Pick<AlsoPulled, 'line' | 'name'> {
  readonly type: 'also-pulled';
  readonly step: string;
}

export const alsoPulled: EntryDefinition<AlsoPulledEntry> = {
  schema: { step, line: key.required(), name: sentence.max(120).required() },
  belongs: 'own-step',
  refuse: ({ step: id, line, name }, { procedure, state }) => {
    const own = stepOf(procedure, id);
    if (own?.id !== stepThat(procedure, 'isolates')?.id) return refusal('unknown-item', { why: 'pulls-nothing', step: own?.title ?? id });
    const twin = state.alsoPulled.find((each) => each.line === line || each.name.toLowerCase() === name.toLowerCase());
    return twin ? refusal('unsafe', { why: 'pulled-already', name: twin.name }) : null;
  },
  apply: (state, { step: id, line, name }, made) => {
    state.alsoPulled.push({ line, name, ...made });
    const checks = state.steps.find((each) => each.id === id)?.checks;
    // it was pulled before it was written down
    if (checks) checks[`${PULLED}${leadBeside(line)}`] = { mark: 'done', reason: null, at: made.at, by: made.by };
  },
  reads: ({ name }) => say('Also pulled: {name}', { name }),
};
