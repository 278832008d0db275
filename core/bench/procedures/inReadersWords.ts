import { inReadersUnits } from '../../base/units/inReadersUnits.js';
import { sayAnew } from '../../base/words/sayAnew.js';
import type { Procedure, ProcedureStep } from '../runs/procedure.js';

/**
 * A run keeps the words that it began with. Those of the standard procedures are said in the language of whoever reads; what the workshop
 * wrote itself stays as it was written. Figures come in the units that the reader's jug and gauge have.
 */
export const inReadersWords = (procedure: Procedure): Procedure => ({ ...procedure, steps: procedure.steps.map(stepSaid) });

/** One sentence of a procedure. */
export const readAnew = (text: string): string => inReadersUnits(sayAnew(text));

const stepSaid = (step: ProcedureStep): ProcedureStep => ({
  ...step,
  title: readAnew(step.title),
  lead: readAnew(step.lead),
  cautions: step.cautions.map(readAnew),
  checks: step.checks.map((check) => ({
    ...check,
    text: readAnew(check.text),
    ...(check.group === undefined ? {} : { group: readAnew(check.group) }),
  })),
  timers: step.timers.map((timer) => ({ ...timer, label: readAnew(timer.label) })),
});
