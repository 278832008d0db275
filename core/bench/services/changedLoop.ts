import { tubesLeaving } from '../../machine/loop-change/loopChange.js';
import type { RebuiltEntry } from '../runs/entries/rebuilt.js';
import { placesOf, type EarlierLoop, type Procedure, type ProcedureStep } from '../runs/procedure.js';
import { bookOf, twinOf } from '../runs/book.js';
import { isDone, marksOf, type RunState } from '../runs/state.js';
import { nameIn } from '../../machine/catalogue/names.js';

/** mL inside a part as the book has it, with nobody having measured it; null where heights or contents are not known. */
export function heldByBook(procedure: Procedure, { contents }: Pick<RunState, 'contents'>, part: string): number | null {
  return twinOf(procedure) && contents.standing ? bookOf(procedure, contents).heldIn(part) : null;
}

/**
 * A run goes on with another loop: what was done stays as it was, what is still to come is made for the loop as it is now, and what is
 * inside it is told from here on with the new one.
 * @param made the procedure of the same kind for the new loop
 * @param goneIds parts and tubes that are no part of it any more
 * @param again steps that are done once more with the loop as it is now
 */
export function procedureAfterChange(
  now: Procedure,
  made: Procedure,
  state: RunState,
  goneIds: readonly string[],
  again: (step: ProcedureStep) => boolean = () => false,
): Procedure {
  const names = placesOf(now);
  const gone = goneIds.map((id) => ({ id, name: nameIn(names, id) }));
  const isGone = (place: string | undefined): boolean =>
    place !== undefined && gone.some(({ id }) => place === id || place.startsWith(`${id}.`));
  const { volume, fillPlan, facts, twin } = now;
  const steps = now.steps.map((step) => {
    const isAgain = again(step);
    if (!isAgain && isDone(state, ({ id }) => id === step.id)) return step;
    const anew = made.steps.find(({ id }) => id === step.id);
    if (!anew) return { ...step, checks: step.checks.filter(({ place }) => !isGone(place)) };
    return isAgain ? anew : keepingAnswered(step, anew, state);
  });
  return {
    ...now,
    volume: made.volume,
    fillPlan: made.fillPlan,
    ...(made.facts ? { facts: made.facts } : {}),
    ...(made.twin ? { twin: made.twin } : {}),
    ...(now.service && made.service ? { service: serviceWithout(now.service, made.service, state) } : {}),
    earlier: [
      ...(now.earlier ?? []),
      {
        loop: { volume, fillPlan, ...(facts ? { facts } : {}), ...(twin ? { twin } : {}) },
        gone,
        checks: answeredNoMore(now, steps, state),
      },
    ],
    steps,
  };
}

/** What was answered in the step that stands open was answered as it read then; the rest reads as it is now. */
function keepingAnswered(step: ProcedureStep, anew: ProcedureStep, state: RunState): ProcedureStep {
  const marks = marksOf(state, step.id);
  const asked = new Map(step.checks.map((each) => [each.id, each]));
  return {
    ...anew,
    checks: anew.checks.map((each) => ((marks[each.id]?.mark ?? 'open') === 'open' ? each : (asked.get(each.id) ?? each))),
  };
}

/** Lines that somebody answered before the loop was changed, and that no step has any more. */
function answeredNoMore(now: Procedure, steps: readonly ProcedureStep[], state: RunState): NonNullable<EarlierLoop['checks']> {
  return now.steps.flatMap(({ id: step, checks }) => {
    const marks = marksOf(state, step);
    const still = new Set(steps.find(({ id }) => id === step)?.checks.map(({ id }) => id));
    return checks.filter(({ id }) => marks[id] !== undefined && !still.has(id)).map(({ id, text }) => ({ step, id, text }));
  });
}

/** What a run writes down when its loop has become the one that was wanted. @throws Error for a service that changes no loop */
export function rebuiltEntry({ service }: Procedure, step: string): RebuiltEntry {
  if (!service?.change) throw new Error('this service changes no loop');
  return { type: 'rebuilt', step, outParts: service.change.out.map(({ id }) => id), outTubes: tubesLeaving(service.change) };
}

type Service = NonNullable<Procedure['service']>;

/** What was planned for the drain stays; what is looked at, rinsed and opened from here on is the new loop's. */
function serviceWithout(now: Service, made: Service, { service: { sheet } }: RunState): Service {
  const items = new Set(made.items.map(({ id }) => id));
  return {
    ...now,
    rigid: made.rigid,
    rinseStand: made.rinseStand,
    openings: { ...now.openings, ...made.openings },
    // what the sheet says of a part that is out now belongs to the record
    items: [...made.items, ...now.items.filter(({ id }) => !items.has(id) && sheet.has(id))],
  };
}
