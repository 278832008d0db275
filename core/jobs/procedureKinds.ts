import type { StepKind } from '../commissioning/procedure.js';
import { STANDARD_TEMPLATE } from '../commissioning/standardTemplate.js';
import { PROTECTED_STEPS, type ProcedureTemplate } from '../commissioning/template.js';
import { JOB_KIND_KEYS, JOB_KINDS, type JobKind } from './kinds.js';
import { serviceTemplate } from './templates.js';

/** What a workshop has a procedure for: the commissioning, and every kind of service. */
export type ProcedureKind = 'commissioning' | JobKind;
export const PROCEDURE_KINDS: readonly ProcedureKind[] = ['commissioning', ...JOB_KIND_KEYS];
export const procedureLabel = (kind: ProcedureKind): string => (kind === 'commissioning' ? 'commissioning' : JOB_KINDS[kind].label);

/** The procedure that a kind comes with. */
export const standardProcedure = (kind: ProcedureKind): ProcedureTemplate =>
  kind === 'commissioning' ? STANDARD_TEMPLATE : serviceTemplate(kind);

/** Steps whose entries the close of a service is computed from: without them it would claim what nobody did. */
const RECORDS: readonly StepKind[] = ['drain', 'rinse', 'inspect', 'clean', 'swap', 'repair'];

/** Steps that a kind cannot do without: they protect people or electronics, or its record is made from them. */
export const protectedSteps = (kind: ProcedureKind): readonly string[] =>
  standardProcedure(kind)
    .steps.filter((step) => PROTECTED_STEPS.includes(step.id) || RECORDS.includes(step.kind))
    .map(({ id }) => id);
