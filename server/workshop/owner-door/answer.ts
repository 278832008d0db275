import { and, eq, isNull, ne, sql } from 'drizzle-orm';
import { say } from '../../../core/base/words/say.js';
import { windowsWithout, type AnswerInput, type OfferInput } from '../../../core/workshop/owner-door/answering.js';
import { DESK_ANSWERS } from '../../../core/workshop/owner-door/whoAnswers.js';
import type { OwnersNow } from '../../../core/workshop/owner-door/answers.js';
import type { Said, SaidKind } from '../../../core/workshop/owner-door/said.js';
import { may, WHOSE } from '../../../core/workshop/people/rights.js';
import { dueItem } from '../../base/database/tables/due-dates.js';
import { serviceJob } from '../../base/database/tables/jobs.js';
import { doorEntry, doorFile, slotOffer } from '../../base/database/tables/owner-door.js';
import { photo } from '../../base/database/tables/photos.js';
import { slot } from '../../base/database/tables/planning.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import { pushNotice } from '../../base/push/notices.js';
import { putOff } from '../due-dates/putOff.js';
import { loadJob } from '../jobs/jobs.js';
import { demandPhotoRoom } from '../photos/room.js';
import { confirmSlot, saveSlots } from '../planning/board.js';
import { readMeter } from '../usage/usage.js';
import { ownersNow } from './waiting.js';

type EntryRow = typeof doorEntry.$inferSelect;
type Taking = (ask: Ask, entry: EntryRow, said: Said) => Promise<unknown>;

/** Answers what an owner sent: what is taken has its effect in the same transaction, or is refused with its reason and stays. */
export async function answerEntry(ask: Ask, { taken, words }: AnswerInput): Promise<OwnersNow> {
  const { scope, account, clock, request } = ask;
  const [entry] = await scope
    .select()
    .from(doorEntry)
    .where(eq(doorEntry.id, idFrom(request, 'id', 'word of an owner')))
    .for('update');
  if (!entry) throw notFound('word of an owner');
  const { said } = entry;
  if (DESK_ANSWERS.includes(said.kind) && !may(account.role, 'desk')) throw new DomainError('forbidden', say(WHOSE.desk));
  if (entry.answeredAt !== null) throw new DomainError('conflict', say('Somebody answered this already.'));
  if (taken) await TAKING[said.kind](ask, entry, said);
  const answered = { answeredAt: clock.now(), answeredBy: account.personId, taken, answer: words };
  await scope.update(doorEntry).set(answered).where(eq(doorEntry.id, entry.id));
  await pushNotice(scope, account.workshopId, { kind: 'owners' });
  return ownersNow(ask);
}

const read: Taking = () => Promise.resolve();

const jobOf = (entry: EntryRow): string => {
  if (entry.jobId === null) throw new DomainError('refused', say('No job is booked for this machine; book one first.'));
  return entry.jobId;
};

/** The slot that was chosen is booked and agreed; the owner hears it as of any other. */
const takeSlot: Taking = async (ask, entry, said) => {
  if (said.kind !== 'slot') return;
  const { scope, account, clock } = ask;
  const jobId = jobOf(entry);
  const [offer] = await scope
    .select()
    .from(slotOffer)
    .where(and(eq(slotOffer.jobId, jobId), eq(slotOffer.startsAt, new Date(said.from))));
  if (!offer) throw new DomainError('conflict', say('This slot was taken back meanwhile. Offer others.'));
  const [known] = await scope.select({ version: slot.version }).from(slot).where(eq(slot.jobId, jobId));
  const version = known?.version ?? 0;
  await saveSlots(ask, { slots: [{ jobId, benchId: offer.benchId, steps: offer.steps, version }], off: [] });
  await confirmSlot(ask, { confirmed: true, version: version + 1 }, jobId);
  await scope.delete(slotOffer).where(eq(slotOffer.jobId, jobId));
  // of several that were chosen one after the other this one holds
  await scope
    .update(doorEntry)
    .set({ answeredAt: clock.now(), answeredBy: account.personId, taken: false, answer: '' })
    .where(
      and(eq(doorEntry.jobId, jobId), isNull(doorEntry.answeredAt), ne(doorEntry.id, entry.id), sql`${doorEntry.said} ->> 'kind' = 'slot'`),
    );
};

/** Days that are ruled out become days that the plan may use. */
const takeDays: Taking = async ({ scope, today }, entry, said) => {
  if (said.kind !== 'days' || entry.jobId === null) return;
  const { service } = await loadJob(scope, entry.jobId);
  await scope
    .update(serviceJob)
    .set({ windows: windowsWithout(said.not, today), version: service.version + 1 })
    .where(eq(serviceJob.jobId, entry.jobId));
  await scope.delete(slotOffer).where(eq(slotOffer.jobId, entry.jobId));
};

const takePutOff: Taking = async (ask, entry, said) => {
  if (said.kind !== 'put-off') return;
  const [item] = await ask.scope
    .select()
    .from(dueItem)
    .where(and(eq(dueItem.systemId, entry.systemId), eq(dueItem.kind, 'coolant-service'), eq(dueItem.state, 'open')))
    .orderBy(dueItem.dueOn)
    .limit(1);
  if (!item) throw new DomainError('refused', say('Nothing is due that could be put off.'));
  await putOff(ask, item, { until: said.until, reason: said.why || say('{name}, on the owner’s page', { name: said.name }) });
};

const takePhoto: Taking = async (ask, entry, said) => {
  if (said.kind !== 'photo') return;
  const { scope, account } = ask;
  const [file] = await scope.select().from(doorFile).where(eq(doorFile.entryId, entry.id));
  if (!file) return;
  await demandPhotoRoom(ask, file.content.length);
  await scope.insert(photo).values({
    workshopId: account.workshopId,
    systemId: entry.systemId,
    jobId: entry.jobId,
    caption: said.text ? say('By the owner: {text}', { text: said.text }) : say('By the owner'),
    mediaType: file.mediaType,
    image: file.content,
    personId: account.personId,
    createdAt: entry.createdAt,
  });
};

const TAKING: Readonly<Record<SaidKind, Taking>> = {
  agreed: read,
  declined: read,
  slot: takeSlot,
  days: takeDays,
  'put-off': takePutOff,
  photo: takePhoto,
  meter: (ask, { systemId }, said) =>
    said.kind === 'meter' ? readMeter(ask, systemId, { hours: said.hours, on: said.on, note: say('by the owner') }) : Promise.resolve(),
  log: read,
  line: read,
};

/** Slots that are offered to an owner; earlier ones are offered no more. */
export async function offerToOwner(ask: Ask, { offers }: OfferInput): Promise<{ offered: number }> {
  const { scope, account, clock, request } = ask;
  const jobId = idFrom(request, 'id', 'job');
  const { job, system } = await loadJob(scope, jobId);
  if (!['booked', 'waiting'].includes(job.state))
    throw new DomainError('refused', say('This job is on a bench or over; it needs no slot.'));
  await scope.delete(slotOffer).where(eq(slotOffer.jobId, jobId));
  await scope.insert(slotOffer).values(
    offers.map(({ benchId, steps }) => ({
      workshopId: account.workshopId,
      systemId: system.id,
      jobId,
      benchId,
      startsAt: new Date(steps[0]?.from ?? ''),
      endsAt: new Date(steps.at(-1)?.to ?? ''),
      steps: [...steps],
      personId: account.personId,
      createdAt: clock.now(),
    })),
  );
  await pushNotice(scope, account.workshopId, { kind: 'owners' });
  return { offered: offers.length };
}
