import type { LooseEnd } from '../../workshop/due-dates/facts.js';
import type { Grade } from '../inspection/grade.js';
import { lastGrade } from './criteria.js';
import { stepOf, type Procedure } from './procedure.js';
import type { RunState, ServiceState } from './state.js';

/** What of a service must be looked at again soon; empty when "clean" may be claimed. */
export function looseEnds(procedure: Procedure, run: RunState): LooseEnd[] {
  if (!procedure.service) return [];
  const skipped = run.steps
    .filter(({ kind, deviation }) => deviation !== null && ['clean', 'rinse', 'inspect'].includes(kind))
    .map(({ id }): LooseEnd => ({ why: 'step-passed-over', step: stepOf(procedure, id)?.title ?? id }));
  const over = run.service.soaks
    .filter(({ startedAt, endedAt, mostMinutes }) => endedAt !== null && Date.parse(endedAt) - Date.parse(startedAt) > mostMinutes * 60_000)
    .map(({ cleaner }): LooseEnd => ({ why: 'cleaner-too-long', cleaner }));
  return [
    ...(run.service.causes.some(({ particlesStayed }) => particlesStayed) ? [{ why: 'particles-stayed' } as const] : []),
    ...skipped,
    ...over,
  ];
}

export interface SheetLine {
  readonly item: string;
  readonly name: string;
  /** the rule that decided, in words */
  readonly words: string;
  readonly grade: Grade;
  readonly text: string;
}

/** Every item that was looked at, with its last grade. */
export const gradedSheet = ({ service }: Procedure, state: ServiceState): SheetLine[] =>
  (service?.items ?? []).flatMap((item) => {
    const graded = lastGrade(state, item);
    return graded
      ? [{ item: item.id, name: item.name, words: graded.rule, grade: graded.grade, text: state.sheet.get(item.id)?.last.text ?? '' }]
      : [];
  });
