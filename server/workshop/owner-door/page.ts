import { and, desc, eq, gt, inArray, sql } from 'drizzle-orm';
import { dayIn } from '../../../core/base/units/calendar.js';
import type { DoorEstimate, DoorPage, DoorSaid } from '../../../core/workshop/owner-door/answers.js';
import { DOOR_ACTS, mayAtDoor, type DoorSettings } from '../../../core/workshop/people/doorSettings.js';
import { readyWhen, standsAt, type OwnersFacts } from '../../../core/workshop/owner-door/stands.js';
import { asBookedKind } from '../../../core/workshop/job-kinds/kinds.js';
import { whereIs } from '../../../core/workshop/jobs/arrival.js';
import type { Scope } from '../../base/database/client.js';
import { dueItem } from '../../base/database/tables/due-dates.js';
import { consent, serviceJob } from '../../base/database/tables/jobs.js';
import { job, owner, system } from '../../base/database/tables/machines.js';
import { doorEntry, ownerReport, slotOffer } from '../../base/database/tables/owner-door.js';
import { workshop } from '../../base/database/tables/people.js';
import { slot } from '../../base/database/tables/planning.js';
import { run } from '../../base/database/tables/runs.js';

/** What every page of the door begins with: whose it is, and what its workshop allows. */
export async function doorShop(scope: Scope) {
  const [row] = await scope
    .select({
      workshop: workshop.name,
      timeZone: workshop.timeZone,
      contact: workshop.contact,
      reading: workshop.reading,
      door: workshop.door,
      owner: owner.name,
      ownerReading: owner.reading,
      machine: system.name,
    })
    .from(system)
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .innerJoin(workshop, sql`true`);
  if (!row) throw new Error('a link without its machine');
  const { reading, ownerReading, ...rest } = row;
  return { ...rest, reading: { ...reading, ...ownerReading } };
}

/** The newest job that this link is about and its owner still waits for, or has not fetched long. */
export async function jobAtDoor(scope: Scope) {
  const [row] = await scope
    .select({
      id: job.id,
      kind: job.kind,
      state: job.state,
      doneOn: job.doneOn,
      estimate: serviceJob.estimate,
      estimateNumber: serviceJob.estimateNumber,
      asked: serviceJob.asked,
      partsOn: serviceJob.partsOn,
      broughtOn: serviceJob.broughtOn,
      notComeOn: serviceJob.notComeOn,
      fetchedOn: serviceJob.fetchedOn,
    })
    .from(serviceJob)
    .innerJoin(job, eq(job.id, serviceJob.jobId))
    .where(inArray(job.state, ['booked', 'waiting', 'active', 'done']))
    // what is still to be done before what is done
    .orderBy(sql`${job.state} = 'done'`, desc(job.createdAt))
    .limit(1);
  return row ?? null;
}
export type JobAtDoor = NonNullable<Awaited<ReturnType<typeof jobAtDoor>>>;

const asDoorEstimate = ({ kind, asked, estimateNumber, estimate }: JobAtDoor, door: DoorSettings): DoorEstimate => ({
  number: estimateNumber,
  kind: asked?.kind ?? asBookedKind(kind),
  found: asked?.found ?? '',
  hours: estimate.hours,
  coolantMl: estimate.coolantMl,
  parts: estimate.parts.map(({ what, amount, unit }) => ({ what, amount, unit })),
  partsText: estimate.partsText,
  priceText: door.prices ? estimate.priceText : '',
  priced: door.prices ? estimate.priced : null,
});

/** What was agreed to, and what was declined, of the estimate as it is now. */
async function answersTo(scope: Scope, { id, estimateNumber }: JobAtDoor) {
  const consents = await scope
    .select({ at: consent.createdAt, number: consent.estimateNumber, how: consent.how, name: consent.name })
    .from(consent)
    .where(eq(consent.jobId, id))
    .orderBy(desc(consent.createdAt));
  const own = consents.find(({ number }) => number === estimateNumber);
  return {
    agreed: own ? { at: own.at.toISOString(), name: own.how === 'page' ? own.name : null } : null,
    wasAgreed: !own && consents.length > 0,
  };
}

const slotAtDoor = async (scope: Scope, jobId: string) => {
  const [row] = await scope.select({ from: slot.startsAt, to: slot.endsAt }).from(slot).where(eq(slot.jobId, jobId));
  return row ? { from: row.from.toISOString(), to: row.to.toISOString() } : null;
};

async function runAtDoor(scope: Scope, jobId: string): Promise<OwnersFacts['run']> {
  const [row] = await scope
    .select({ stage: run.stage, stageEndsAt: run.stageEndsAt, waitsFor: run.waitsFor, waitsUntil: run.waitsUntil })
    .from(run)
    .where(and(eq(run.jobId, jobId), eq(run.state, 'active')))
    .orderBy(desc(run.startedAt))
    .limit(1);
  return row ? { ...row, stageEndsAt: row.stageEndsAt?.toISOString() ?? null } : null;
}

/** Dates that concern an owner: the coolant's, and the level that is to be looked at. */
async function duesAtDoor(scope: Scope) {
  const rows = await scope
    .select({ kind: dueItem.kind, on: dueItem.dueOn, from: dueItem.windowFrom, putOff: dueItem.postponed })
    .from(dueItem)
    .where(and(eq(dueItem.state, 'open'), inArray(dueItem.kind, ['coolant-service', 'settling-check'])))
    .orderBy(dueItem.dueOn);
  return {
    due: rows.find(({ kind }) => kind === 'coolant-service') ?? null,
    settle: rows.find(({ kind }) => kind === 'settling-check') ?? null,
  };
}

/** entries that a page shows */
const SHOWN = 20;

const saidAtDoor = (scope: Scope) =>
  scope
    .select({
      at: doorEntry.createdAt,
      said: doorEntry.said,
      answeredAt: doorEntry.answeredAt,
      taken: doorEntry.taken,
      words: doorEntry.answer,
    })
    .from(doorEntry)
    .orderBy(desc(doorEntry.createdAt))
    .limit(SHOWN);

/** reports that a page names: older ones are at the workshop */
const REPORTS = 10;
async function reportsAtDoor(scope: Scope): Promise<DoorPage['reports']> {
  const rows = await scope
    .select({ number: ownerReport.number, at: ownerReport.createdAt, kind: sql<string>`${ownerReport.facts} ->> 'kind'` })
    .from(ownerReport)
    .orderBy(desc(ownerReport.number))
    .limit(REPORTS);
  return rows.map(({ at, ...row }) => ({ ...row, at: at.toISOString() }));
}

type Told = Awaited<ReturnType<typeof saidAtDoor>>;

async function factsAtDoor(scope: Scope, own: JobAtDoor | null, timeZone: string, now: Date): Promise<OwnersFacts> {
  return {
    where: own && whereIs(own.state, own),
    run: own && (await runAtDoor(scope, own.id)),
    slot: own && (await slotAtDoor(scope, own.id)),
    partsOn: own?.partsOn ?? null,
    doneOn: own?.doneOn ?? null,
    fetchedOn: own?.fetchedOn ?? null,
    today: dayIn(timeZone, now),
    nowMs: now.getTime(),
  };
}

/** What is still to be done, with its estimate and the owner's answers to it. */
async function jobShown(scope: Scope, own: JobAtDoor, door: DoorSettings, said: Told): Promise<NonNullable<DoorPage['job']>> {
  const declined = said.find((each) => each.said.kind === 'declined' && each.said.estimateNumber === own.estimateNumber);
  return {
    kind: asBookedKind(own.kind),
    estimate: asDoorEstimate(own, door),
    ...(await answersTo(scope, own)),
    declinedAt: declined?.at.toISOString() ?? null,
  };
}

async function slotsShown(scope: Scope, own: JobAtDoor, agreed: OwnersFacts['slot'], open: Told, now: Date): Promise<DoorPage['slots']> {
  const rows = agreed
    ? []
    : await scope
        .select({ from: slotOffer.startsAt, to: slotOffer.endsAt })
        .from(slotOffer)
        .where(and(eq(slotOffer.jobId, own.id), gt(slotOffer.startsAt, now)))
        .orderBy(slotOffer.startsAt);
  return {
    agreed,
    offered: rows.map(({ from, to }) => ({ from: from.toISOString(), to: to.toISOString() })),
    chosen: open.flatMap(({ said }) => (said.kind === 'slot' ? [said.from] : []))[0] ?? null,
  };
}
const NO_SLOTS: DoorPage['slots'] = { agreed: null, offered: [], chosen: null };

const asDoorSaid = ({ at, said, answeredAt, taken, words }: Told[number]): DoorSaid => ({
  at: at.toISOString(),
  said,
  answer: answeredAt === null || taken === null ? null : { taken, words, at: answeredAt.toISOString() },
});

/** All that one link shows, read as the door's role. */
export async function readDoor(scope: Scope, now: Date): Promise<DoorPage> {
  const shop = await doorShop(scope);
  const { publicAddress: _own, ...contact } = shop.contact;
  const own = await jobAtDoor(scope);
  /** what is still to be done */
  const job = own?.state === 'done' ? null : own;
  const facts = await factsAtDoor(scope, own, shop.timeZone, now);
  const { due, settle } = await duesAtDoor(scope);
  const said = await saidAtDoor(scope);
  const open = said.filter(({ answeredAt }) => answeredAt === null);
  return {
    workshop: { name: shop.workshop, contact, timeZone: shop.timeZone },
    reading: shop.reading,
    owner: shop.owner,
    machine: shop.machine,
    now: now.toISOString(),
    today: facts.today,
    stands: standsAt(facts),
    ready: readyWhen(facts),
    job: job && (await jobShown(scope, job, shop.door, said)),
    slots: job ? await slotsShown(scope, job, facts.slot, open, now) : NO_SLOTS,
    due: due && job === null ? { on: due.on, putOff: due.putOff } : null,
    settle: settle && { from: settle.from, to: settle.on, sent: open.some((each) => each.said.kind === 'photo') },
    reports: await reportsAtDoor(scope),
    said: said.map(asDoorSaid),
    may: DOOR_ACTS.filter((act) => mayAtDoor(shop.door, act)),
  };
}
