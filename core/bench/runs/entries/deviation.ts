import { say } from '../../../base/words/say.js';
import { noteDrainEnd } from '../drainEnd.js';
import { refusal, remark, type EntryDefinition } from '../entry.js';
import { stepOf, type ProcedureStep } from '../procedure.js';
import { closeStep } from '../state.js';
import type { MisfitFact } from '../why.js';
import { reason, step } from './fields.js';

export interface DeviationEntry {
  readonly type: 'deviation';
  readonly step: string;
  readonly reason: string;
}

export const deviation: EntryDefinition<DeviationEntry> = {
  schema: { step, reason: reason.required() },
  belongs: 'own-step',
  apply: (state, entry, made, procedure) => {
    closeStep(state, entry.step, made, remark(made, entry.reason));
    noteDrainEnd(procedure, state, entry.step, made.at);
  },
  refuse: (entry, { procedure }) => {
    const own = stepOf(procedure, entry.step);
    const fact = own && protectedBy(own);
    return fact ? refusal('unsafe', fact) : null;
  },
  reads: (entry, { procedure }) =>
    say('Passed over with a reason: {stepOf} ({reason})', {
      stepOf: stepOf(procedure, entry.step)?.title ?? entry.step,
      reason: entry.reason,
    }),
};

/** Steps that may not be passed over with a reason, because somebody or something would be hurt. */
function protectedBy({ title, kind, does }: ProcedureStep): MisfitFact | null {
  if (kind === 'sign-off') return { why: 'use-sign-off' };
  if (kind === 'power') return { why: 'protects-return', step: title };
  if (does.includes('isolates') || does.includes('cuts-mains')) return { why: 'protects-power', step: title };
  if (does.includes('closes')) return { why: 'protects-closing', step: title };
  if (does.includes('changes-loop')) return { why: 'protects-change', step: title };
  return does.includes('empties') ? { why: 'protects-emptying', step: title } : null;
}
