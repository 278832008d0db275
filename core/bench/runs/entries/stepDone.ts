import { say } from '../../../base/words/say.js';
import { lacksOf } from '../criteria.js';
import { refusal, type EntryDefinition } from '../entry.js';
import { noteDrainEnd } from '../drainEnd.js';
import { spillsAgainst } from '../locks.js';
import { stepOf } from '../procedure.js';
import { closeStep } from '../state.js';
import { step } from './fields.js';

export interface StepDoneEntry {
  readonly type: 'step-done';
  readonly step: string;
}

export const stepDone: EntryDefinition<StepDoneEntry> = {
  schema: { step },
  belongs: 'own-step',
  moves: (book, entry, _before, procedure) => {
    const own = stepOf(procedure, entry.step);
    if (own?.does.includes('empties')) book.emptied();
    if (own?.kind === 'bleed') book.bled();
  },
  apply: (state, entry, made, procedure) => {
    // taken apart: what the book still held is on towels and in parts
    if (stepOf(procedure, entry.step)?.does.includes('empties'))
      state.service.flows.push({ eventId: made.eventId, at: made.at, way: 'emptied', liquid: 'old', volumeMl: 0 });
    closeStep(state, entry.step, made, null);
    noteDrainEnd(procedure, state, entry.step, made.at);
  },
  refuse: (entry, { procedure, state, nowMs }) => {
    const own = stepOf(procedure, entry.step);
    if (own?.kind === 'sign-off') return refusal('step-open', { why: 'use-sign-off' });
    const lacks = lacksOf(procedure, state, entry.step, nowMs);
    return lacks.length > 0 ? refusal('step-open', { why: 'step-not-done', step: own?.title ?? entry.step, lacks }) : null;
  },
  locks: (entry, { procedure, state, nowMs }) =>
    procedure.facts && stepOf(procedure, entry.step)?.kind === 'power' ? spillsAgainst(state, nowMs) : [],
  reads: (entry, { procedure }) => say('Done: {stepOf}', { stepOf: stepOf(procedure, entry.step)?.title ?? entry.step }),
};
