import { say } from '../../../core/base/words/say.js';
import { offerSlots } from '../../../core/workshop/calls/offers.js';
import type { OffersAnswer } from '../../../core/workshop/calls/answers.js';
import type { BoardJob, WorkshopBoard } from '../../../core/workshop/planning/workshopPlan.js';
import { windowsOf, type BookingInput, type OffersQuery } from '../../../core/workshop/calls/schema.js';
import { newestRevision } from '../../machine/loops/revisions.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError } from '../../base/http/errors.js';
import { agree, bookJob, readJob } from '../jobs/jobs.js';
import { boardJobOf, confirmSlot, readBoard, saveSlots } from '../planning/board.js';

/** slots that are offered at once: what a caller can keep in mind */
const OFFERED = 3;

/** The next slots for such a job on this loop. */
export async function offersFor(ask: Ask, { loop, kind, hours, days, parts }: OffersQuery): Promise<OffersAnswer> {
  const { file } = await newestRevision(ask.scope, loop);
  const board = await readBoard(ask);
  const job = await boardJobOf(ask, {
    id: 'offered',
    kind,
    hours: Number(hours),
    file,
    windows: windowsOf(days),
    arrivesOn: parts ?? null,
  });
  return offersOf(board, job);
}

/** The next slots for a job that is booked: with its own days, parts and owner. */
export async function offersForJob(ask: Ask): Promise<OffersAnswer> {
  const jobId = idFrom(ask.request, 'id', 'job');
  const board = await readBoard(ask);
  const job = board.jobs.find(({ id }) => id === jobId);
  if (!job) throw new DomainError('refused', say('This job is on a bench or over; it needs no slot.'));
  return offersOf(board, job);
}

function offersOf(board: WorkshopBoard, job: BoardJob): OffersAnswer {
  const benchOf = new Map(board.benches.map(({ id, name }) => [id, name]));
  return {
    attendedMinutes: job.attendedMinutes,
    learnedFrom: job.learnedFrom,
    offers: offerSlots(board, job, OFFERED).map((offer) => ({
      ...offer,
      bench: benchOf.get(offer.benchId) ?? '',
      from: offer.steps[0]?.from ?? '',
      to: offer.steps.at(-1)?.to ?? '',
    })),
  };
}

/** Books a job with its slot, agreed on the phone: all of it, or nothing where somebody else took the slot meanwhile. */
export async function bookCall(ask: Ask, { job, offer, agreed }: BookingInput): Promise<Awaited<ReturnType<typeof readJob>>> {
  const { id, version } = await bookJob(ask, job);
  if (agreed) await agree(ask, { how: agreed, words: '', version }, id);
  await saveSlots(ask, { slots: [{ jobId: id, ...offer, version: 0 }], off: [] });
  await confirmSlot(ask, { confirmed: true, version: 1 }, id);
  return readJob(ask, id);
}
