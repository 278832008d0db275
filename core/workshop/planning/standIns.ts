import { awaySpans } from './absences.js';
import { jobSteps } from './jobSteps.js';
import { PLAN } from './defaults.js';
import { hasSkills, type PlanStep, type Span } from './problem.js';
import { shiftsOf, without } from './shifts.js';
import type { BoardSlot, WorkshopBoard } from './workshopPlan.js';

type Step = BoardSlot['steps'][number];
const span = ({ from, to }: Step): Span => ({ from: Date.parse(from), to: Date.parse(to) });
const meet = (a: Span, b: Span): boolean => a.from < b.to && a.to > b.from;

/** Whether who has a step in hand is away then. */
function isAway({ absences, timeZone }: WorkshopBoard, step: Step): boolean {
  return absences
    .filter(({ personId }) => personId === step.personId)
    .flatMap((absence) => awaySpans(timeZone, absence))
    .some((away) => meet(span(step), away));
}

/** When somebody is there and has nothing else in hand: hours without absences and without the steps of other jobs. */
function freeSpans(board: WorkshopBoard, personId: string, exceptJobId: string): Span[] {
  const taken = board.slots
    .filter(({ jobId }) => jobId !== exceptJobId)
    .flatMap(({ steps }) => steps.filter((step) => step.personId === personId).map(span));
  const days = { from: board.today, count: PLAN.horizonDays };
  return without(
    shiftsOf(personId, board.timeZone, days, board.shifts, board.absences),
    taken.sort((a, b) => a.from - b.from),
  );
}

/**
 * A job's slot in other hands where those it had are away: bench and times stay, so that nobody's appointment moves.
 * One pair of hands for all of it comes first, and whoever has another step of the job before that: it knows what was done.
 * @returns null: nobody is away in it, or nobody there can and is free for all that they had in hand
 */
export function withStandIns(board: WorkshopBoard, jobId: string): BoardSlot | null {
  const slot = board.slots.find((each) => each.jobId === jobId);
  const job = board.jobs.find(({ id }) => id === jobId);
  if (!slot || !job || !slot.steps.some((step) => isAway(board, step))) return null;
  const kinds = jobSteps(job);
  if (kinds.length !== slot.steps.length) return null;
  const inIt = new Set(slot.steps.filter((step) => !isAway(board, step)).map(({ personId }) => personId));
  const people = [...board.people].sort((a, b) => Number(inIt.has(b.id)) - Number(inIt.has(a.id)));
  const inHandsOf = (some: typeof people) =>
    slot.steps.map((step, index): Step | null => {
      if (!isAway(board, step)) return step;
      const { from, to } = span(step);
      const standIn = some.find(
        ({ id, skills }) =>
          hasSkills({ skills: skills ?? undefined }, kinds[index] as PlanStep) &&
          freeSpans(board, id, jobId).some((free) => free.from <= from && free.to >= to),
      );
      return standIn ? { ...step, personId: standIn.id } : null;
    });
  const steps = [...people.map((one) => [one]), people].map(inHandsOf).find((each) => each.every((step) => step !== null));
  return steps ? { ...slot, steps: steps as Step[] } : null;
}
