import { addDays, instantIn } from '../../base/units/calendar.js';
import { HALF_DAY_MINUTE, type Absence } from './shifts.js';
import type { BoardSlot, WorkshopBoard } from './workshopPlan.js';

/** ms in which somebody is away, day by day, on the workshop's clock. */
export function awaySpans(zone: string, { fromDay, toDay, part }: Omit<Absence, 'personId'>): { from: number; to: number }[] {
  const spans: { from: number; to: number }[] = [];
  const [begins, ends] = [part === 'afternoon' ? HALF_DAY_MINUTE : 0, part === 'morning' ? HALF_DAY_MINUTE : 24 * 60];
  for (let day = fromDay; day <= toDay; day = addDays(day, 1))
    spans.push({ from: instantIn(zone, day, begins), to: instantIn(zone, day, ends) });
  return spans;
}

/** A job that stands in the hands of somebody who is away then. */
export interface HitJob {
  readonly jobId: string;
  readonly systemName: string;
  readonly ownerName: string;
  readonly from: string;
  /** its owner was told of it */
  readonly confirmed: boolean;
}

/** Whether an absence takes the hands away from a step of a slot. */
export function takesHands({ timeZone }: Pick<WorkshopBoard, 'timeZone'>, absence: Absence): (step: BoardSlot['steps'][number]) => boolean {
  const spans = awaySpans(timeZone, absence);
  return ({ personId, from, to }) =>
    personId === absence.personId && spans.some((span) => Date.parse(from) < span.to && Date.parse(to) > span.from);
}

/** What an absence hits, the earliest first: jobs of the board, told to their owners or not. */
export function hitBy(board: WorkshopBoard, absence: Absence): HitJob[] {
  const isHit = takesHands(board, absence);
  return board.slots
    .filter(({ steps }) => steps.some(isHit))
    .flatMap(({ jobId, steps, confirmed }): HitJob[] => {
      const job = board.jobs.find(({ id }) => id === jobId);
      const from = steps[0]?.from;
      return job && from ? [{ jobId, systemName: job.systemName, ownerName: job.ownerName, from, confirmed }] : [];
    })
    .sort((a, b) => a.from.localeCompare(b.from));
}
