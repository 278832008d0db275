import { say } from '../../base/words/say.js';
import { EACH, isEach, type CheckTemplate, type ProcedureTemplate, type StepTemplate } from '../runs/template.js';

/** One difference between two versions of a procedure, in words. */
export interface TemplateChange {
  readonly step: string;
  readonly kind: 'added' | 'removed' | 'changed';
  readonly what: 'step' | 'title' | 'lead' | 'caution' | 'check' | 'timer';
  readonly before: string | null;
  readonly after: string | null;
}

type Words = ReadonlyMap<string, string>;

const checkWords = (checks: readonly CheckTemplate[]): Words =>
  new Map(checks.map((check) => (isEach(check) ? [`each ${check.each}`, say(EACH[check.each])] : [check.id, check.text])));
const timerWords = ({ timers }: StepTemplate): Words =>
  new Map(
    timers.map(({ id, label, minutes }) => [
      id,
      `${label}, ${minutes === 'wet' ? say('as long as the school says') : say('{minutes} min', { minutes })}`,
    ]),
  );

function listChanges(step: string, what: TemplateChange['what'], before: Words, after: Words): TemplateChange[] {
  const gone = [...before].flatMap(([key, words]): TemplateChange[] => {
    const now = after.get(key);
    if (now === undefined) return [{ step, kind: 'removed', what, before: words, after: null }];
    return now === words ? [] : [{ step, kind: 'changed', what, before: words, after: now }];
  });
  const come = [...after].filter(([key]) => !before.has(key)).map(([, words]): TemplateChange => ({ step, kind: 'added', what, before: null, after: words })); // prettier-ignore
  return [...gone, ...come];
}

const asWords = (items: readonly string[]): Words => new Map(items.map((item) => [item, item]));

function stepChanges(before: StepTemplate, after: StepTemplate): TemplateChange[] {
  const text = (what: 'title' | 'lead', a: string, b: string): TemplateChange[] =>
    a === b ? [] : [{ step: after.title, kind: 'changed', what, before: a, after: b }];
  return [
    ...text('title', before.title, after.title),
    ...text('lead', before.lead, after.lead),
    ...listChanges(after.title, 'caution', asWords(before.cautions), asWords(after.cautions)),
    ...listChanges(after.title, 'check', checkWords(before.checks), checkWords(after.checks)),
    ...listChanges(after.title, 'timer', timerWords(before), timerWords(after)),
  ];
}

/** What one version of a procedure does otherwise than another, step by step. */
export function compareTemplates(before: ProcedureTemplate, after: ProcedureTemplate): TemplateChange[] {
  const was = new Map(before.steps.map((step) => [step.id, step]));
  const kept = new Set(after.steps.map(({ id }) => id));
  const removed = before.steps
    .filter(({ id }) => !kept.has(id))
    .map(({ title }): TemplateChange => ({ step: title, kind: 'removed', what: 'step', before: title, after: null }));
  const others = after.steps.flatMap((step): TemplateChange[] => {
    const earlier = was.get(step.id);
    return earlier ? stepChanges(earlier, step) : [{ step: step.title, kind: 'added', what: 'step', before: null, after: step.title }];
  });
  return [...removed, ...others];
}
