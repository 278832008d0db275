import { sayAnew } from '../../base/words/sayAnew.js';
import type { Procedure, ProcedureStep } from '../runs/procedure.js';

/**
 * A run keeps the words that it began with. Those of the standard procedures are said in the language of whoever reads; what the workshop
 * wrote itself stays as it was written.
 */
export const inReadersWords = (procedure: Procedure): Procedure => ({ ...procedure, steps: procedure.steps.map(stepSaid) });

const stepSaid = (step: ProcedureStep): ProcedureStep => ({
  ...step,
  title: sayAnew(step.title),
  lead: sayAnew(step.lead),
  cautions: step.cautions.map(sayAnew),
  checks: step.checks.map((check) => ({
    ...check,
    text: sayAnew(check.text),
    ...(check.group === undefined ? {} : { group: sayAnew(check.group) }),
  })),
  timers: step.timers.map((timer) => ({ ...timer, label: sayAnew(timer.label) })),
});
