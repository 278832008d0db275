import { say } from '../../base/words/say.js';
import Joi from 'joi';
import { AFTER, STEP_KINDS, STEP_TRAITS } from '../runs/procedure.js';
import { finite, note } from '../../base/checking/fields.js';
import { PROCEDURE_KINDS, protectedSteps, standardProcedure, type ProcedureKind } from './procedureKinds.js';
import { EACH, PLACEHOLDERS, PROTECTED_EACH, isEach, isProtected, type ProcedureTemplate, type StepTemplate } from '../runs/template.js';

const words = (most: number): Joi.StringSchema => Joi.string().trim().min(1).max(most);
const key = Joi.string()
  .pattern(/^[a-z0-9][a-z0-9-]*$/, 'small letters, digits and hyphens')
  .max(60);

const check = Joi.alternatives(
  Joi.object({
    each: Joi.string()
      .valid(...Object.keys(EACH))
      .required(),
    group: words(60),
  }),
  Joi.object({
    id: key.required(),
    text: words(300).required(),
    group: words(60),
    mayNotApply: Joi.boolean(),
    beforePower: Joi.boolean(),
    after: Joi.string().valid(...AFTER),
    // what guards people or power is ticked one by one
    together: Joi.boolean().when('beforePower', { is: true, then: Joi.forbidden() }),
    onlyDry: Joi.boolean(),
    where: Joi.string().valid('reservoir', 'no-reservoir'),
    textWithoutReservoir: words(300),
  }),
);

const step = Joi.object({
  id: key.required(),
  kind: Joi.string()
    .valid(...STEP_KINDS)
    .required(),
  does: Joi.array()
    .items(Joi.string().valid(...STEP_TRAITS))
    .max(STEP_TRAITS.length),
  title: words(80).required(),
  lead: words(300).required(),
  leadWithoutReservoir: words(300),
  cautions: Joi.array().items(words(300)).max(10).required(),
  cautionsWithoutReservoir: Joi.array().items(words(300)).max(10),
  checks: Joi.array().items(check).max(60).required(),
  timers: Joi.array()
    .items(
      Joi.object({
        id: key.required(),
        label: words(80).required(),
        minutes: Joi.alternatives(Joi.valid('wet'), finite().greater(0).max(2880)).required(),
      }),
    )
    .max(6)
    .required(),
});

const twice = (ids: readonly string[]): string | undefined => ids.find((id, index) => ids.indexOf(id) !== index);
const standardOf = (kind: ProcedureKind, id: string): StepTemplate | undefined =>
  standardProcedure(kind).steps.find((each) => each.id === id);

/** Why a template cannot be a procedure, in words; null when it can. */
export function refuseTemplate({ steps }: ProcedureTemplate, kind: ProcedureKind = 'commissioning'): string | null {
  const ids = steps.map(({ id }) => id);
  const double = twice(ids);
  if (double) return say('two steps are called "{double}"', { double });
  const missing = protectedSteps(kind).find((id) => !ids.includes(id));
  if (missing) return refuseMissing(standardOf(kind, missing) as StepTemplate);
  return refuseOrder(kind, ids) ?? steps.map((each) => refuseStep(kind, each)).find((problem) => problem !== null) ?? null;
}

const refuseMissing = (step: StepTemplate): string =>
  isProtected(step)
    ? say('the step "{title}" protects people or electronics and must stay', { title: step.title })
    : say('the step "{title}" must stay: what it writes down is what the job is closed by', { title: step.title });

function refuseOrder(kind: ProcedureKind, ids: readonly string[]): string | null {
  const order = standardProcedure(kind).steps.map(({ id }) => id);
  const known = ids.filter((id) => order.includes(id));
  const astray = known.find((id, index) => index > 0 && order.indexOf(id) < order.indexOf(known[index - 1] as string));
  if (astray)
    return say('"{standardOf}" comes too late: the steps of the standard procedure keep their order', {
      standardOf: standardOf(kind, astray)?.title,
    });
  return ids.at(-1) === 'sign-off' ? null : say('the sign-off is the last step');
}

function refuseStep(kind: ProcedureKind, given: StepTemplate): string | null {
  const standard = standardOf(kind, given.id);
  if (standard && standard.kind !== given.kind) return say('the step "{id}" is of the kind {kind}', { id: given.id, kind: standard.kind });
  if (!standard && given.kind !== 'checks') return say('a step of your own ("{title}") can only hold checks', { title: given.title });
  const double = twice(given.checks.flatMap((item) => (isEach(item) ? [] : [item.id])));
  if (double) return say('"{title}" has two checks called "{double}"', { title: given.title, double });
  const unknown = textsOf(given)
    .flatMap((text) => [...text.matchAll(/\{(\w+)\}/g)].map(([, name]) => name as string))
    .find((name) => !(PLACEHOLDERS as readonly string[]).includes(name));
  if (unknown)
    return say('"\'{\'{unknown}\'}\'" in "{title}" stands for nothing; known are {map}', {
      unknown,
      title: given.title,
      map: PLACEHOLDERS.map((name) => `{${name}}`).join(' '),
    });
  return standard && protectedSteps(kind).includes(given.id) ? refuseUnprotected(standard, given) : null;
}

/** What a protected step may not lose. */
function refuseUnprotected(standard: StepTemplate, given: StepTemplate): string | null {
  for (const item of standard.checks) {
    const kept = isEach(item)
      ? !PROTECTED_EACH.includes(item.each) || given.checks.some((each) => isEach(each) && each.each === item.each)
      : !item.beforePower || given.checks.some((each) => !isEach(each) && each.id === item.id && each.beforePower === true);
    if (!kept)
      return say('"{title}" must keep {isEach}', { title: given.title, isEach: isEach(item) ? EACH[item.each] : `"${item.text}"` });
  }
  return null;
}

const textsOf = ({ title, lead, leadWithoutReservoir, cautions, cautionsWithoutReservoir, checks }: StepTemplate): string[] => [
  title,
  lead,
  leadWithoutReservoir ?? '',
  ...cautions,
  ...(cautionsWithoutReservoir ?? []),
  ...checks.flatMap((item) => (isEach(item) ? [] : [item.text, item.textWithoutReservoir ?? ''])),
];

const template = Joi.object({ steps: Joi.array().items(step).min(1).max(30).required() }).custom((value: ProcedureTemplate, helpers) => {
  const { kind = 'commissioning' } = helpers.state.ancestors[0] as { kind?: ProcedureKind };
  const problem = PROCEDURE_KINDS.includes(kind) ? refuseTemplate(value, kind) : null;
  return problem === null ? value : helpers.message({ custom: `${problem.charAt(0).toUpperCase()}${problem.slice(1)}.` });
});

export interface TemplateCreate {
  /** what it leads */
  readonly kind: ProcedureKind;
  readonly template: ProcedureTemplate;
  /** what was changed and why */
  readonly note: string;
  /** number of the version it was made from; 0 for the standard one */
  readonly from: number;
}
export const templateCreateSchema = Joi.object({
  kind: Joi.string()
    .valid(...PROCEDURE_KINDS)
    .default('commissioning'),
  template: template.required(),
  note: note().trim().min(3).required(),
  from: Joi.number().integer().min(0).required(),
});
