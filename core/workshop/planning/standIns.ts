import { takesHands } from './absences.js';
import { PLAN } from './defaults.js';
import { jobSteps } from './jobSteps.js';
import { hasSkills, type PlanStep, type Span } from './problem.js';
import { shiftsOf } from './shifts.js';
import { span, type BoardSlot, type WorkshopBoard } from './workshopPlan.js';

type Step = BoardSlot['steps'][number];

/** When somebody is there and has nothing else in hand: hours without absences and without the steps of other jobs. */
function freeSpans({ slots, today, timeZone, shifts, absences }: WorkshopBoard, personId: string, exceptJobId: string): Span[] {
  const taken = slots
    .filter(({ jobId }) => jobId !== exceptJobId)
    .flatMap(({ steps }) => steps.filter((step) => step.personId === personId).map(span));
  return shiftsOf(personId, timeZone, { from: today, count: PLAN.horizonDays }, shifts, absences, taken);
}

/**
 * A job's slot in other hands where those it had are away: bench and times stay, so that nobody's appointment moves.
 * One pair of hands for all of it comes first, and whoever has another step of the job before that: it knows what was done.
 * @returns null: nobody is away in it, or nobody there can and is free for all that they had in hand
 */
export function withStandIns(board: WorkshopBoard, jobId: string): BoardSlot | null {
  const slot = board.slots.find((each) => each.jobId === jobId);
  const job = board.jobs.find(({ id }) => id === jobId);
  const hits = board.absences.map((absence) => takesHands(board, absence));
  const isAway = (step: Step): boolean => hits.some((isHit) => isHit(step));
  if (!slot || !job || !slot.steps.some(isAway)) return null;
  const kinds = jobSteps(job);
  if (kinds.length !== slot.steps.length) return null;
  const inIt = new Set(slot.steps.filter((step) => !isAway(step)).map(({ personId }) => personId));
  const people = board.people
    .map((one) => ({ ...one, free: freeSpans(board, one.id, jobId) }))
    .sort((a, b) => Number(inIt.has(b.id)) - Number(inIt.has(a.id)));
  const inHandsOf = (some: typeof people) =>
    slot.steps.map((step, index): Step | null => {
      if (!isAway(step)) return step;
      const { from, to } = span(step);
      const standIn = some.find(
        ({ skills, free }) =>
          hasSkills({ skills: skills ?? undefined }, kinds[index] as PlanStep) && free.some((each) => each.from <= from && each.to >= to),
      );
      return standIn ? { ...step, personId: standIn.id } : null;
    });
  const steps = [...people.map((one) => [one]), people].map(inHandsOf).find((each) => each.every((step) => step !== null));
  return steps ? { ...slot, steps: steps as Step[] } : null;
}
