import { addDays, dayIn, instantIn } from '../../base/units/calendar.js';
import { emptyBoard, placeJob, putOnBoard } from '../planning/place.js';
import { earliestOf, QUARTER_MS, startOf, upToQuarter, type PlanJob } from '../planning/problem.js';
import { buildProblem, toSlots, type BoardJob, type BoardSlot, type WorkshopBoard } from '../planning/workshopPlan.js';

/** A slot that can be had: it fits bench, hands, kits, parts and the owner's days beside all that is planned. */
export type Offer = Pick<BoardSlot, 'benchId' | 'steps'>;

/**
 * The next slots for a job, on different days, soonest first. What is planned stays where it is, agreed or not; a slot that the job has
 * already is free for it.
 * @param job on the board, or about to be booked
 */
export function offerSlots(board: WorkshopBoard, job: BoardJob, count: number): Offer[] {
  const own: WorkshopBoard = {
    ...board,
    jobs: [...board.jobs.filter(({ id }) => id !== job.id), job],
    slots: board.slots.filter(({ jobId }) => jobId !== job.id),
  };
  const built = buildProblem(own);
  const index = built.jobs.length - 1;
  const offers: Offer[] = [];
  let fromMs = earliestOf(built.problem, built.problem.jobs[index] as PlanJob);
  while (offers.length < count) {
    const jobs = built.problem.jobs.map((each, at) => (at === index ? { ...each, releaseMs: upToQuarter(fromMs) } : each));
    const problem = { ...built.problem, jobs };
    const taken = emptyBoard(problem);
    for (const placed of built.current) putOnBoard(problem, taken, placed);
    const placed = placeJob(problem, taken, index);
    if (!placed) return offers;
    // behind a job that ends at odd minutes
    if (startOf(placed) % QUARTER_MS !== 0) {
      fromMs = upToQuarter(startOf(placed));
      continue;
    }
    const [slot] = toSlots(own, built, [placed]);
    if (slot) offers.push({ benchId: slot.benchId, steps: slot.steps });
    // the next one is on another day: three times of one afternoon are no choice
    fromMs = instantIn(board.timeZone, addDays(dayIn(board.timeZone, new Date(startOf(placed))), 1), 0);
  }
  return offers;
}
