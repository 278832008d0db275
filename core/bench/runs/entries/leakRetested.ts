import Joi from 'joi';
import { id } from '../../../base/checking/fields.js';
import { isAirTight } from '../criteria.js';
import { refusal, type EntryDefinition } from '../entry.js';

export interface LeakRetestedEntry {
  readonly type: 'leak-retested';
  readonly leak: string;
  readonly dry: boolean;
}

export const leakRetested: EntryDefinition<LeakRetestedEntry> = {
  schema: { leak: id().required(), dry: Joi.boolean().required() },
  belongs: 'anytime',
  apply: (state, { leak, dry }, { at }) => {
    const found = state.leaks.find(({ eventId }) => eventId === leak);
    if (found) found.retested = { dry, at };
  },
  refuse: ({ leak, dry }, { procedure, state }) => {
    const found = state.leaks.find(({ eventId }) => eventId === leak);
    if (!found) return refusal('unknown-item', { why: 'unknown-leak' });
    if (found.mended === null) return refusal('step-open', { why: 'leak-mend-first' });
    return dry && found.inAir && !isAirTight(procedure, state, found.mended.at) ? refusal('step-open', { why: 'test-air-again' }) : null;
  },
  reads: ({ dry }) => (dry ? 'Joint tested again: dry' : 'Joint tested again: still leaking'),
};
