import { say } from '../../../base/words/say.js';
import Joi from 'joi';
import { id } from '../../../base/checking/fields.js';
import { lackBeforeDry, ranSince } from '../criteria.js';
import { refusal, type EntryDefinition } from '../entry.js';
import type { Leak, Retest, RunState } from '../state.js';

export interface LeakRetestedEntry {
  readonly type: 'leak-retested';
  readonly leak: string;
  readonly dry: boolean;
}

export const leakRetested: EntryDefinition<LeakRetestedEntry> = {
  schema: { leak: id().required(), dry: Joi.boolean().required() },
  belongs: 'anytime',
  apply: (state, { leak, dry }, { at, by }) => {
    const found = state.leaks.find(({ eventId }) => eventId === leak);
    if (!found) return;
    found.retested = { dry, how: howTested(state, found), at, by };
    found.retests = [...found.retests, found.retested];
  },
  refuse: ({ leak, dry }, { procedure, state }) => {
    const found = state.leaks.find(({ eventId }) => eventId === leak);
    if (!found) return refusal('unknown-item', { why: 'unknown-leak' });
    const lack = dry ? lackBeforeDry(procedure, state, found) : found.mended === null ? 'leak-mend-first' : null;
    return lack && refusal('step-open', { why: lack });
  },
  reads: ({ dry }) => (dry ? say('Joint tested again: dry') : say('Joint tested again: still leaking')),
};

/** As what a look counts: what was found with air is only seen with air; else whether the pump ran since it was mended. */
function howTested(state: RunState, { inAir, mended }: Leak): Retest['how'] {
  if (inAir) return 'air';
  return ranSince(state, mended?.at ?? '') ? 'running' : 'standing';
}
