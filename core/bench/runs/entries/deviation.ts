import { say } from '../../../base/words/say.js';
import { noteDrainEnd } from '../drainEnd.js';
import Joi from 'joi';
import { AIR_OUT } from '../checkIds.js';
import { airAgainst } from '../locks.js';
import { refusal, remark, type EntryDefinition } from '../entry.js';
import { stepOf, type ProcedureStep } from '../procedure.js';
import { closeStep } from '../state.js';
import type { MisfitFact } from '../why.js';
import { reason, step } from './fields.js';

export interface DeviationEntry {
  readonly type: 'deviation';
  readonly step: string;
  readonly reason: string;
  /** said with it: the air of the test is out */
  readonly airOut?: boolean;
}

export const deviation: EntryDefinition<DeviationEntry> = {
  schema: { step, reason: reason.required(), airOut: Joi.boolean() },
  belongs: 'own-step',
  apply: (state, entry, made, procedure) => {
    const own = state.steps.find(({ id, kind }) => id === entry.step && kind === 'dry-test');
    if (own && entry.airOut) own.checks[AIR_OUT] = { mark: 'done', reason: null, at: made.at, by: made.by };
    closeStep(state, entry.step, made, remark(made, entry.reason));
    noteDrainEnd(procedure, state, entry.step, made.at);
  },
  // behind the air test caps are opened to pour: not with air under pressure inside
  locks: (entry, { procedure, state }) =>
    stepOf(procedure, entry.step)?.kind === 'dry-test' && !entry.airOut ? airAgainst(procedure, state) : [],
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
