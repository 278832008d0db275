import type { LooseEnd } from '../../workshop/due-dates/facts.js';
import type { Grade } from '../inspection/grade.js';
import type { InspectKind } from '../inspection/items.js';
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
  // deposit between fins is not reached by a rinse alone
  const unsoaked = run.service.soaks.length > 0 ? [] : depositIn(procedure, run.service, 'radiator');
  return [
    ...unsoaked.map((name): LooseEnd => ({ why: 'radiator-not-soaked', name })),
    ...(run.service.blownByMouth.length > 0 ? [{ why: 'blown-by-mouth' } as const] : []),
    ...(run.service.causes.some(({ particlesStayed }) => particlesStayed) ? [{ why: 'particles-stayed' } as const] : []),
    ...skipped,
    ...over,
  ];
}

/** Names of items of a kind that held deposit at their first look or their last. */
function depositIn({ service }: Procedure, { sheet }: ServiceState, kind: InspectKind): string[] {
  const held = (id: string): boolean => {
    const seen = sheet.get(id);
    return seen !== undefined && (seen.first.deposit !== 'none' || seen.last.deposit !== 'none');
  };
  return (service?.items ?? []).filter((item) => item.kind === kind && held(item.id)).map(({ name }) => name);
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
