import { say } from '../../base/words/say.js';
import type { StepKind } from '../runs/procedure.js';
import { STANDARD_TEMPLATE } from '../commissioning/standardTemplate.js';
import { isEach, isProtected, type CheckTemplate, type OwnCheck, type ProcedureTemplate } from '../runs/template.js';
import { JOB_KIND_KEYS, JOB_KINDS, type JobKind } from '../../workshop/job-kinds/kinds.js';
import { serviceTemplate } from '../services/templates.js';

/** What a workshop has a procedure for: the commissioning, and every kind of service. */
export type ProcedureKind = 'commissioning' | JobKind;
export const PROCEDURE_KINDS: readonly ProcedureKind[] = ['commissioning', ...JOB_KIND_KEYS];
export const procedureLabel = (kind: ProcedureKind): string =>
  kind === 'commissioning' ? say('commissioning') : say(JOB_KINDS[kind].label);

/** The procedure that a kind comes with. */
export const standardProcedure = (kind: ProcedureKind): ProcedureTemplate =>
  kind === 'commissioning' ? STANDARD_TEMPLATE : serviceTemplate(kind);

/** Steps whose entries the close of a service is computed from: without them it would claim what nobody did. */
const RECORDS: readonly StepKind[] = ['drain', 'rinse', 'inspect', 'clean', 'swap', 'repair'];

/** Steps that a kind cannot do without: they protect people or electronics, or its record is made from them. */
export const protectedSteps = (kind: ProcedureKind): readonly string[] =>
  standardProcedure(kind)
    .steps.filter((step) => isProtected(step) || RECORDS.includes(step.kind))
    .map(({ id }) => id);

/**
 * What a standard step does, and what a standard check waits for, is its own, whatever a lead's version of it says; a step of the
 * lead's own does nothing beyond its kind.
 */
export function withTraits(kind: ProcedureKind, { steps }: ProcedureTemplate): ProcedureTemplate {
  const standard = new Map(standardProcedure(kind).steps.map((step) => [step.id, step]));
  return {
    steps: steps.map(({ does: _given, ...step }) => {
      const own = standard.get(step.id);
      const checks = own ? step.checks.map((check) => withMoment(check, own.checks)) : step.checks;
      return { ...step, checks, ...(own?.does ? { does: own.does } : {}) };
    }),
  };
}

function withMoment(check: CheckTemplate, standard: readonly CheckTemplate[]): CheckTemplate {
  const own = isEach(check) ? undefined : standard.find((each): each is OwnCheck => !isEach(each) && each.id === check.id);
  return own?.after === undefined ? check : { ...(check as OwnCheck), after: own.after };
}
