import { seenAtIntake } from '../fallout/seenAtIntake.js';
import { say } from '../../../core/base/words/say.js';
import { loopHistory } from './loopHistory.js';
import { appointmentsOf } from '../planning/appointments.js';
import { slot } from '../../base/database/tables/planning.js';
import { isOutline } from '../../../core/machine/loop-file/outline.js';
import { comesOutMl } from '../../../core/physics/draining/takeOut.js';
import { outFacts } from '../../../core/bench/services/serviceFacts.js';
import { liquidOf } from '../../../core/machine/liquids/fluids.js';
import type { LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import type { JobChange } from '../../../core/workshop/jobs/answers.js';
import { productOf } from '../coolants/products.js';
import { wantedFile, wantedRevision } from './wanted.js';
import { cameFilledOf, contentsOf, hasFill, insideOf } from '../../machine/loops/inside.js';
import { newestRevision } from '../../machine/loops/revisions.js';
import type { Suspect } from '../../../core/workshop/lots/suspects.js';
import { and, desc, eq, inArray, sql } from 'drizzle-orm';
import { contradictionOf, type Contradiction } from '../../../core/workshop/jobs/contradicts.js';
import { whereIs } from '../../../core/workshop/jobs/arrival.js';
import { tellCancelled } from '../messages/slots.js';
import { refuse } from '../../../core/base/checking/input.js';
import { besideAs } from '../../../core/workshop/jobs/beside.js';
import { asBookedKind, asJobKind, BOOKED_KINDS, buildKinds, isBuild } from '../../../core/workshop/job-kinds/kinds.js';
import type { ConsentInput, JobEdit, JobInput } from '../../../core/workshop/jobs/schema.js';
import { person } from '../../base/database/tables/people.js';
import { fill, run, runEvent } from '../../base/database/tables/runs.js';
import type { Scope } from '../../base/database/client.js';
import { dueItem } from '../../base/database/tables/due-dates.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound, stale } from '../../base/http/errors.js';
import { loop } from '../../base/database/tables/loops.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import { photo } from '../../base/database/tables/photos.js';
import { billOf } from '../prices/bills.js';
import { pricedEstimate, repricedEstimate } from '../prices/estimate.js';
import { loansFor } from '../store/loans.js';
import { storeItem, storeMove } from '../../base/database/tables/store.js';
import { wasteContainer, wasteEntry } from '../../base/database/tables/waste.js';
import { owner, job, system } from '../../base/database/tables/machines.js';
import { consent, serviceJob } from '../../base/database/tables/jobs.js';

/** Takes a machine in: a job is booked, with what the owner said and what was told to him. */
/** The open date that a job answers: the follow-up it was booked for, else the loop's coolant service. */
async function answeredBy(scope: Scope, { loopId, answers }: JobInput): Promise<string | null> {
  const open = and(eq(dueItem.loopId, loopId), eq(dueItem.state, 'open'));
  if (!answers) {
    const [due] = await scope
      .select({ id: dueItem.id })
      .from(dueItem)
      .where(and(open, eq(dueItem.kind, 'coolant-service')))
      .limit(1);
    return due?.id ?? null;
  }
  const [followUp] = await scope
    .select({ id: dueItem.id })
    .from(dueItem)
    .where(and(open, eq(dueItem.kind, 'follow-up'), eq(dueItem.id, answers)));
  if (!followUp) refuse('answers', say('is no open follow-up of this loop'));
  return followUp.id;
}

export async function bookJob(ask: Ask, input: JobInput) {
  const { scope, account, clock } = ask;
  const systemId = idFrom(ask.request, 'id', 'system');
  const [own] = await scope
    .select({ system, file: loop.id })
    .from(system)
    .innerJoin(loop, and(eq(loop.systemId, system.id), eq(loop.id, input.loopId)))
    .where(eq(system.id, systemId));
  if (!own) throw notFound('system with this loop');
  if (own.system.state === 'retired') throw new DomainError('refused', say('This system is retired; bring it back into service first.'));
  await demandKind(scope, input, own.system.state);
  await demandPart(scope, input.loopId, input.partId);
  demandDays(input);
  const dueItemId = await answeredBy(scope, input);
  const wantedRevisionId = await wantedRevision(ask, input);
  const at = clock.now();
  const [made] = await scope
    .insert(job)
    .values({
      workshopId: account.workshopId,
      systemId,
      kind: input.kind,
      state: 'booked',
      note: input.note,
      personId: account.personId,
      createdAt: at,
    })
    .returning({ id: job.id });
  const jobId = (made as { id: string }).id;
  await scope.insert(serviceJob).values({
    workshopId: account.workshopId,
    jobId,
    loopId: input.loopId,
    partId: input.partId,
    wantedRevisionId,
    productId: await pourOf(scope, input),
    beside: [...(input.beside ?? [])],
    intake: input.intake,
    estimate: await pricedEstimate(ask, input.kind, input.loopId, input.estimate, input.productId),
    neededBy: input.neededBy,
    partsOn: input.partsOn,
    dropOffOn: input.dropOffOn,
    windows: [...input.windows],
    dueItemId,
    broughtOn: input.here ? ask.today : null,
    estimateAt: at,
    createdAt: at,
  });
  await seenAtIntake(ask, input.loopId, input.intake.signs);
  return readJob(ask, jobId);
}

/** A loop that was never filled is built; one that holds something, or did, is serviced. */
async function demandKind(scope: Scope, { kind, loopId }: Pick<JobInput, 'kind' | 'loopId'>, state: string): Promise<void> {
  if (!isBuild(kind)) {
    if (state === 'planned') throw new DomainError('refused', say('This loop was never filled: book its build first.'));
    return;
  }
  if ((await hasFill(scope, loopId)) || (await cameFilledOf(scope, loopId)))
    throw new DomainError('refused', say('This loop was filled already: what is done to it now is a service.'));
  const { file } = await newestRevision(scope, loopId);
  if (isOutline(file)) refuse('loopId', say('nobody laid out this loop yet: a build is led by its drawing'));
  const [open] = await scope
    .select({ id: job.id })
    .from(serviceJob)
    .innerJoin(job, eq(job.id, serviceJob.jobId))
    .where(and(eq(serviceJob.loopId, loopId), inArray(job.kind, buildKinds), inArray(job.state, ['booked', 'waiting', 'active'])));
  if (open) throw new DomainError('conflict', say('The build of this loop is booked already; open its job.'), { jobId: open.id });
}

const CONTRADICTIONS: Readonly<Record<Contradiction['why'], (day: string) => string>> = {
  'before-it-comes': (day) => say('lies before {day}, when it can come in at the earliest', { day }),
  'before-its-parts': (day) => say('lies before {day}, when its parts are expected', { day }),
  'after-it-is-needed': (day) => say('lies after {day}, when it is needed again', { day }),
};
/** Days that cannot all hold are said, not planned. */
function demandDays(input: Parameters<typeof contradictionOf>[0]): void {
  const wrong = contradictionOf(input);
  if (wrong) refuse(wrong.field, CONTRADICTIONS[wrong.why](wrong.day));
}

/** What is poured is on the shelf, and is said only where the loop is filled anew. */
async function pourOf(scope: Scope, { kind, productId = null }: Pick<JobInput, 'kind' | 'productId'>): Promise<string | null> {
  if (productId === null || BOOKED_KINDS[kind].fill !== 'anew') return null;
  if (!(await productOf(scope, productId))) refuse('productId', say('is no coolant of this workshop'));
  return productId;
}

async function demandPart(scope: Scope, loopId: string, partId: string | null): Promise<void> {
  if (partId === null) return;
  const { file } = await newestRevision(scope, loopId);
  if (isOutline(file)) refuse('partId', say('nobody laid out this loop yet: lay it out, then its parts can be named'));
  if (!file.components.some(({ id }) => id === partId)) refuse('partId', say('"{partId}" is not a part of this loop', { partId }));
}

export async function loadJob(scope: Scope, jobId: string) {
  const [row] = await scope
    .select({ job, service: serviceJob, system, owner, loop })
    .from(serviceJob)
    .innerJoin(job, eq(job.id, serviceJob.jobId))
    .innerJoin(system, eq(system.id, job.systemId))
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .innerJoin(loop, eq(loop.id, serviceJob.loopId))
    .where(eq(serviceJob.jobId, jobId));
  if (!row) throw notFound('job');
  return row;
}

export const consentsOf = (scope: Scope, jobId: string) =>
  scope
    .select({
      id: consent.id,
      at: consent.createdAt,
      kind: consent.kind,
      estimate: consent.estimate,
      estimateNumber: consent.estimateNumber,
      how: consent.how,
      words: consent.words,
      by: sql<string>`coalesce(${person.name}, ${consent.name})`,
    })
    .from(consent)
    .leftJoin(person, eq(person.id, consent.personId))
    .where(eq(consent.jobId, jobId))
    .orderBy(desc(consent.createdAt));

/** What was suspected at the bench, so that whoever else holds it can be listed. */
async function suspicionsOf(scope: Scope, jobId: string): Promise<{ suspect: Exclude<Suspect, 'none'>; item: string | null }[]> {
  const rows = await scope
    .select({ body: runEvent.body })
    .from(runEvent)
    .innerJoin(run, eq(run.id, runEvent.runId))
    .where(and(eq(run.jobId, jobId), sql`${runEvent.body} ->> 'type' = 'cause'`, sql`${runEvent.body} ->> 'suspect' <> 'none'`))
    .orderBy(desc(run.startedAt), desc(runEvent.seq));
  const said = rows.flatMap(({ body }) =>
    body.type === 'cause' && body.suspect !== 'none' ? [{ suspect: body.suspect, item: body.item }] : [],
  );
  return said.filter((each, index) => said.findIndex(({ suspect, item }) => suspect === each.suspect && item === each.item) === index);
}

/** One job as its page needs it: intake, estimate, consents, what the loop's history says about its scope. */
export async function readJob(ask: Ask, jobId = idFrom(ask.request, 'id', 'job')) {
  const { scope } = ask;
  const row = await loadJob(scope, jobId);
  const revision = await newestRevision(scope, row.service.loopId);
  const consents = await consentsOf(scope, jobId);
  const [led] = await scope
    .select({ id: run.id, state: run.state })
    .from(run)
    .where(eq(run.jobId, jobId))
    .orderBy(desc(run.startedAt))
    .limit(1);
  const photos = await scope
    .select({ id: photo.id, caption: photo.caption, at: photo.createdAt })
    .from(photo)
    .where(eq(photo.jobId, jobId))
    .orderBy(photo.createdAt);
  return {
    id: jobId,
    kind: asBookedKind(row.job.kind),
    state: row.job.state,
    note: row.job.note,
    createdAt: row.job.createdAt.toISOString(),
    intake: row.service.intake,
    estimate: row.service.estimate,
    partId: row.service.partId,
    productId: row.service.productId,
    beside: besideAs(asBookedKind(row.job.kind), row.service.beside),
    change: await changeFor(scope, row, revision.file),
    neededBy: row.service.neededBy,
    partsOn: row.service.partsOn,
    dropOffOn: row.service.dropOffOn,
    windows: row.service.windows,
    asked: row.service.asked,
    version: row.service.version,
    broughtOn: row.service.broughtOn,
    notComeOn: row.service.notComeOn,
    fetchedOn: row.service.fetchedOn,
    where: whereIs(row.job.state, row.service),
    doneOn: row.job.doneOn,
    consents,
    consented: consents.some(({ estimateNumber }) => estimateNumber === row.service.estimateNumber),
    system: { id: row.system.id, name: row.system.name, state: row.system.state },
    owner: { id: row.owner.id, name: row.owner.name, phone: row.owner.phone, email: row.owner.email, channel: row.owner.channel },
    loop: {
      id: row.loop.id,
      name: row.loop.name,
      file: revision.file,
      coolantProductId: row.loop.coolantProductId,
      inside: await insideOf(scope, row.loop.id, revision.file),
    },
    history: await loopHistory(ask, row.service.loopId),
    appointment: (await appointmentsOf(scope, [jobId])).get(jobId) ?? null,
    run: led ?? null,
    photos,
    causes: await suspicionsOf(scope, jobId),
    loans: await loansFor(scope, jobId),
    took: await tookFor(scope, jobId),
    bill: await billOf(ask, jobId),
    today: ask.today,
  };
}

/** The work between the loop inside and the one that a job wants; null where it wants none, has made it, or is over. */
async function changeFor(
  scope: Scope,
  { job: { state, kind }, service, loop: own }: Awaited<ReturnType<typeof loadJob>>,
  file: LoopFile,
): Promise<JobChange | null> {
  // whatever was drawn since is no work of a job that is over
  const wanted = ['done', 'cancelled'].includes(state) ? null : await wantedFile(scope, service.wantedRevisionId);
  if (!wanted) return null;
  const contents = await contentsOf(scope, service.loopId);
  const liquid = liquidOf((await productOf(scope, own.coolantProductId)) ?? undefined);
  const { change, takeOut } = outFacts({
    kind: asJobKind(kind),
    loop: file,
    part: null,
    wanted: wanted.file,
    liquid,
    beside: service.beside,
    ...(contents ? { contents } : {}),
  });
  if (!change) return null;
  const { wanted: becomes, found: _known, drain, ...work } = change;
  return { number: wanted.number, file: becomes, work, drain, comesMl: takeOut && comesOutMl({ hangsMl: 0, drawAt: null, ...takeOut }) };
}

/** What a job took from the shelf and put into waste. */
async function tookFor(scope: Scope, jobId: string): Promise<{ name: string; amount: number; unit: string }[]> {
  const moves = await scope
    .select({ name: storeItem.name, unit: storeItem.unit, change: storeMove.change })
    .from(storeMove)
    .innerJoin(storeItem, eq(storeItem.id, storeMove.itemId))
    .where(eq(storeMove.jobId, jobId));
  const waste = await scope
    .select({ name: wasteContainer.label, volumeMl: wasteEntry.volumeMl })
    .from(wasteEntry)
    .innerJoin(wasteContainer, eq(wasteContainer.id, wasteEntry.containerId))
    .where(eq(wasteEntry.jobId, jobId));
  const poured = await scope
    .select({ name: coolantProduct.name, pouredMl: fill.pouredMl })
    .from(fill)
    .innerJoin(coolantProduct, eq(coolantProduct.id, fill.productId))
    .where(eq(fill.jobId, jobId));
  const sums = new Map<string, { name: string; amount: number; unit: string }>();
  const add = (name: string, amount: number, unit: string): void => {
    const known = sums.get(`${name} ${unit}`);
    sums.set(`${name} ${unit}`, { name, unit, amount: (known?.amount ?? 0) + amount });
  };
  for (const { name, change, unit } of moves) add(name, -change, unit);
  for (const { name, pouredMl } of poured) if (pouredMl !== null) add(name, pouredMl, 'mL');
  for (const { name, volumeMl } of waste) add(`into ${name}`, volumeMl, 'mL');
  return [...sums.values()].filter(({ amount }) => Math.abs(amount) > 1e-9);
}

/** Changes a job that was not begun. A new kind or estimate asks for a new consent. */
export async function editJob(ask: Ask, input: JobEdit) {
  const { scope } = ask;
  const jobId = idFrom(ask.request, 'id', 'job');
  const row = await loadJob(scope, jobId);
  if (row.service.version !== input.version) throw stale('job', input, { ...row.service, kind: row.job.kind });
  if (!['booked', 'waiting'].includes(row.job.state))
    throw new DomainError('refused', say('This job was begun; change its scope from the bench, so that its steps change with it.'));
  if (isBuild(asBookedKind(row.job.kind)) !== isBuild(input.kind))
    refuse('kind', say('A build stays a build, and a service a service; cancel it and book the other.'));
  await demandPart(scope, row.service.loopId, input.partId);
  demandDays(input);
  // the drawing without a part follows from the part: the same part asks for no other
  const isSamePart = input.kind === 'part-conversion' && row.job.kind === input.kind && row.service.partId === input.partId;
  const wantedRevisionId = isSamePart ? row.service.wantedRevisionId : await wantedRevision(ask, { ...input, loopId: row.service.loopId });
  const { estimate, changed: asksAgain } = await repricedEstimate(
    ask,
    { kind: row.job.kind, estimate: row.service.estimate, productId: row.service.productId },
    { kind: input.kind, loopId: row.service.loopId, estimate: input.estimate, productId: input.productId ?? null },
  );
  const changed = await scope
    .update(serviceJob)
    .set({
      partId: input.partId,
      wantedRevisionId,
      productId: await pourOf(scope, input),
      beside: [...(input.beside ?? [])],
      intake: input.intake,
      estimate,
      neededBy: input.neededBy,
      partsOn: input.partsOn,
      dropOffOn: input.dropOffOn,
      windows: [...input.windows],
      ...(asksAgain ? { estimateNumber: row.service.estimateNumber + 1, estimateAt: ask.clock.now() } : {}),
      version: input.version + 1,
    })
    .where(and(eq(serviceJob.jobId, jobId), eq(serviceJob.version, input.version)))
    .returning({ id: serviceJob.id });
  if (changed.length === 0) throw stale('job', input, { ...row.service, kind: row.job.kind });
  await scope.update(job).set({ kind: input.kind, note: input.note }).where(eq(job.id, jobId));
  return readJob(ask, jobId);
}

/** Writes down what the owner agreed to: the estimate as it stands now. */
export async function agree(ask: Ask, input: ConsentInput, jobId = idFrom(ask.request, 'id', 'job')) {
  const { scope, account, clock } = ask;
  const row = await loadJob(scope, jobId);
  if (row.service.version !== input.version) throw stale('job', input, row.service);
  await scope.insert(consent).values({
    workshopId: account.workshopId,
    jobId,
    kind: row.job.kind,
    estimate: row.service.estimate,
    estimateNumber: row.service.estimateNumber,
    how: input.how,
    words: input.words,
    personId: account.personId,
    createdAt: clock.now(),
  });
  return readJob(ask, jobId);
}

/** Takes a booking back; its history stays. */
export async function cancelJob(ask: Ask, reason: string) {
  const jobId = idFrom(ask.request, 'id', 'job');
  const row = await loadJob(ask.scope, jobId);
  if (!['booked', 'waiting'].includes(row.job.state))
    throw new DomainError('refused', say('This job stands on a bench or is over; leave its run instead.'));
  await ask.scope.update(job).set({ state: 'cancelled', note: reason }).where(eq(job.id, jobId));
  // its bench and hands are free for others; an owner who was told of it hears that it is off
  const [gone] = await ask.scope.delete(slot).where(eq(slot.jobId, jobId)).returning();
  if (gone) {
    const { workshopId, personId, timeZone } = ask.account;
    const writing = { workshopId, personId, at: ask.clock.now() };
    await tellCancelled(ask.scope, writing, { ...gone, systemId: row.system.id, version: gone.version + 1, timeZone }, '');
  }
  return readJob(ask, jobId);
}

/** Jobs of one machine that are not over. */
export async function openJobsOf({ scope }: Pick<Ask, 'scope'>, systemId: string) {
  const rows = await scope
    .select({
      id: job.id,
      kind: job.kind,
      state: job.state,
      neededBy: serviceJob.neededBy,
      partsOn: serviceJob.partsOn,
      broughtOn: serviceJob.broughtOn,
      notComeOn: serviceJob.notComeOn,
      fetchedOn: serviceJob.fetchedOn,
    })
    .from(serviceJob)
    .innerJoin(job, eq(job.id, serviceJob.jobId))
    .where(and(eq(job.systemId, systemId), inArray(job.state, ['booked', 'active', 'waiting'])))
    .orderBy(job.createdAt);
  const appointments = await appointmentsOf(scope, rows.map(({ id }) => id)); // prettier-ignore
  return rows.map(({ broughtOn, fetchedOn, ...row }) => ({
    ...row,
    kind: asBookedKind(row.kind),
    where: whereIs(row.state, { ...row, broughtOn, fetchedOn }),
    appointment: appointments.get(row.id) ?? null,
  }));
}
