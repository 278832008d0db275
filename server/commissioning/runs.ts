import { and, asc, desc, eq, ne } from 'drizzle-orm';
import { buildProcedure } from '../../core/commissioning/procedure.js';
import { replay } from '../../core/commissioning/state.js';
import { refuseEntry } from '../../core/commissioning/rules.js';
import type { RunEvent } from '../../core/commissioning/events.js';
import type { RunEventInput } from '../../core/commissioning/eventSchema.js';
import type { RunCreate } from '../../core/commissioning/schema.js';
import { refuse } from '../../core/checking/check.js';
import { liquidOf } from '../../core/flow/fluids.js';
import type { LoopFile } from '../../core/loops/loopFile.js';
import { orderCoolant } from '../../core/coolants/order.js';
import { fillVolume } from '../../core/filling/fillPlan.js';
import { bench, person } from '../accounts/tables.js';
import { coolantBatch, coolantProduct } from '../coolants/tables.js';
import type { Scope } from '../database/client.js';
import { idFrom, type Ask } from '../http/context.js';
import { DomainError, notFound } from '../http/errors.js';
import { loop, loopRevision } from '../loops/tables.js';
import { pushNotice } from '../push/notices.js';
import { customer, job, system } from '../systems/tables.js';
import { newestProcedure } from './procedures.js';
import { run, runEvent, runRecord } from './tables.js';

/** Puts a machine on a bench and starts the commissioning of one of its loops. */
export async function startRun(ask: Ask, input: RunCreate) {
  const { scope, account, clock } = ask;
  const [own] = await scope
    .select({ loop, system })
    .from(loop)
    .innerJoin(system, eq(system.id, loop.systemId))
    .where(eq(loop.id, input.loopId))
    .for('update');
  if (!own) throw notFound('loop');
  if (own.system.state === 'retired') throw new DomainError('refused', 'This system is retired; bring it back into service first.');
  const [active] = await scope
    .select({ id: run.id })
    .from(run)
    .where(and(eq(run.loopId, input.loopId), eq(run.state, 'active')));
  if (active) throw new DomainError('conflict', 'This loop is already being commissioned; open the run in progress.', { runId: active.id });
  if (input.benchId !== null) await claimBench(scope, input.benchId, own.system.id);
  const [revision] = await scope
    .select()
    .from(loopRevision)
    .where(eq(loopRevision.loopId, input.loopId))
    .orderBy(desc(loopRevision.number))
    .limit(1);
  if (!revision) throw notFound('loop revision');
  const [product] =
    own.loop.coolantProductId === null
      ? []
      : await scope.select().from(coolantProduct).where(eq(coolantProduct.id, own.loop.coolantProductId));
  const order = product
    ? orderCoolant(fillVolume(revision.file), {
        form: product.form as 'ready-mix' | 'concentrate',
        targetFraction: product.targetFraction,
        bottleMl: product.bottleMl,
      })
    : null;
  if (input.schools.leak === 'opened-joints') checkJoints(revision.file, input.openedJoints);
  const ours = await newestProcedure(scope);
  const procedure = buildProcedure({
    loop: revision.file,
    schools: input.schools,
    order,
    coolantName: product?.name ?? null,
    liquid: liquidOf(product),
    ...(input.lostMl === null ? {} : { opened: { joints: input.openedJoints, lostMl: input.lostMl } }),
    ...(ours ? { template: ours.template, templateNumber: ours.number } : {}),
  });

  const at = clock.now();
  const [madeJob] = await scope
    .insert(job)
    .values({
      workshopId: account.workshopId,
      systemId: own.system.id,
      kind: 'commissioning',
      state: 'active',
      personId: account.personId,
      createdAt: at,
    })
    .returning({ id: job.id });
  const [made] = await scope
    .insert(run)
    .values({
      workshopId: account.workshopId,
      jobId: (madeJob as { id: string }).id,
      loopId: input.loopId,
      revisionId: revision.id,
      benchId: input.benchId,
      procedure,
      startedAt: at,
      personId: account.personId,
      createdAt: at,
    })
    .returning({ id: run.id });
  await scope
    .update(system)
    .set({ state: 'on-bench', version: own.system.version + 1 })
    .where(eq(system.id, own.system.id));
  return readRun(ask, (made as { id: string }).id);
}

function checkJoints(file: LoopFile, joints: readonly string[]): void {
  const known = new Set(file.tubes.map(({ id }) => id));
  const astray = joints.findIndex((id) => !known.has(id));
  if (astray >= 0) refuse(`openedJoints[${astray}]`, `"${joints[astray]}" is not a run of this loop`);
}

/** A bench holds one machine; two loops of the same machine may be worked on there at once. */
async function claimBench(scope: Scope, benchId: string, systemId: string): Promise<void> {
  const [place] = await scope.select().from(bench).where(eq(bench.id, benchId)).for('update');
  if (!place) throw notFound('bench');
  const [other] = await scope
    .select({ name: system.name })
    .from(run)
    .innerJoin(loop, eq(loop.id, run.loopId))
    .innerJoin(system, eq(system.id, loop.systemId))
    .where(and(eq(run.benchId, benchId), eq(run.state, 'active'), ne(system.id, systemId)))
    .limit(1);
  if (other) throw new DomainError('conflict', `${place.name} is taken by ${other.name}; choose another bench.`);
}

export async function loadEvents(scope: Scope, runId: string): Promise<RunEvent[]> {
  const rows = await scope
    .select({ id: runEvent.id, seq: runEvent.seq, at: runEvent.happenedAt, by: person.name, body: runEvent.body })
    .from(runEvent)
    .innerJoin(person, eq(person.id, runEvent.personId))
    .where(eq(runEvent.runId, runId))
    .orderBy(asc(runEvent.seq));
  return rows.map((row) => ({ ...row, at: row.at.toISOString() }));
}

export async function readRun(ask: Ask, runId: string) {
  const { scope, clock } = ask;
  const [row] = await scope
    .select({
      run,
      benchName: bench.name,
      loopName: loop.name,
      systemId: system.id,
      systemName: system.name,
      customerName: customer.name,
      revisionNumber: loopRevision.number,
      file: loopRevision.file,
      coolantProductId: loop.coolantProductId,
    })
    .from(run)
    .innerJoin(loop, eq(loop.id, run.loopId))
    .innerJoin(system, eq(system.id, loop.systemId))
    .innerJoin(customer, eq(customer.id, system.customerId))
    .innerJoin(loopRevision, eq(loopRevision.id, run.revisionId))
    .leftJoin(bench, eq(bench.id, run.benchId))
    .where(eq(run.id, runId));
  if (!row) throw notFound('run');
  return { ...row, events: await loadEvents(scope, runId), now: clock.now().toISOString() };
}

/** How far a device's clock may run ahead before its instant is not believed. */
const CLOCK_SLACK_MS = 60_000;

function happenedAt(input: RunEventInput, startedAt: Date, now: Date): Date {
  if (input.at === undefined) return now;
  const at = new Date(input.at);
  if (at.getTime() > now.getTime() + CLOCK_SLACK_MS) refuse('at', `cannot lie in the future (got ${input.at})`);
  if (at.getTime() < startedAt.getTime() - CLOCK_SLACK_MS)
    refuse('at', `cannot lie before the run began at ${startedAt.toISOString()} (got ${input.at})`);
  return at;
}

/**
 * Adds one entry to the log. The run's row is locked first, so that two devices number their entries one after the
 * other. An entry that is already there is not added again, and answers as it did the first time.
 */
export async function appendEvent(ask: Ask, input: RunEventInput) {
  const { scope, account, clock, request } = ask;
  const runId = idFrom(request, 'id', 'run');
  const [row] = await scope.select().from(run).where(eq(run.id, runId)).for('update');
  if (!row) throw notFound('run');
  const events = await loadEvents(scope, runId);
  const known = events.find(({ id }) => id === input.id);
  const now = clock.now();
  if (known) return { event: known, now: now.toISOString() };
  if (row.state === 'abandoned') throw new DomainError('refused', 'This run was abandoned; start a new one.');
  if (input.body.type === 'signed-off')
    throw new DomainError('refused', 'Sign off with its own request, so that record and dates are made with it.');
  const body =
    input.body.type === 'coolant'
      ? { ...input.body, ...(await coolantNames(scope, input.body.productId, input.body.batchId)) }
      : input.body;
  const refusal = refuseEntry(row.procedure, replay(row.procedure, events), events, body, now.getTime());
  if (refusal)
    throw new DomainError('refused', `${refusal.message.charAt(0).toUpperCase()}${refusal.message.slice(1)}.`, { reason: refusal.code });
  return {
    event: await insertEvent(ask, {
      id: input.id,
      runId,
      seq: events.length + 1,
      at: happenedAt(input, row.startedAt, now),
      body,
      by: account.personName,
    }),
    now: now.toISOString(),
  };
}

/** Names as the store has them, whatever the device sent: the record must be readable without the store. */
async function coolantNames(scope: Scope, productId: string, batchId: string | null): Promise<{ productName: string; lot: string | null }> {
  const [product] = await scope.select({ name: coolantProduct.name }).from(coolantProduct).where(eq(coolantProduct.id, productId));
  if (!product) throw notFound('coolant');
  if (batchId === null) return { productName: product.name, lot: null };
  const [batch] = await scope
    .select({ lot: coolantBatch.lot })
    .from(coolantBatch)
    .where(and(eq(coolantBatch.id, batchId), eq(coolantBatch.productId, productId)));
  if (!batch) throw notFound('coolant batch');
  return { productName: product.name, lot: batch.lot };
}

export async function insertEvent(
  { scope, account, clock }: Ask,
  entry: { id: string; runId: string; seq: number; at: Date; body: RunEvent['body']; by: string },
): Promise<RunEvent> {
  // The id comes from a device. One that another workshop used cannot be seen here and would break the key: the database answers with a conflict.
  await scope.insert(runEvent).values({
    id: entry.id,
    workshopId: account.workshopId,
    runId: entry.runId,
    seq: entry.seq,
    happenedAt: entry.at,
    personId: account.personId,
    body: entry.body,
    createdAt: clock.now(),
  });
  await pushNotice(scope, account.workshopId, { kind: 'run', runId: entry.runId, seq: entry.seq });
  return { id: entry.id, seq: entry.seq, at: entry.at.toISOString(), by: entry.by, body: entry.body };
}

/** Takes a machine off the bench without a record. The log stays. */
export async function abandonRun(ask: Ask, reason: string) {
  const { scope, request } = ask;
  const runId = idFrom(request, 'id', 'run');
  const [row] = await scope.select().from(run).where(eq(run.id, runId)).for('update');
  if (!row) throw notFound('run');
  if (row.state !== 'active') throw new DomainError('refused', 'This run is already closed.');
  await scope.update(run).set({ state: 'abandoned' }).where(eq(run.id, runId));
  await scope.update(job).set({ state: 'cancelled', note: reason }).where(eq(job.id, row.jobId));
  await leaveBench(scope, row.loopId);
  return { id: runId, state: 'abandoned' };
}

/** The machine leaves the bench once none of its loops is being worked on. It was in service if it ever had a signed-off run. */
export async function leaveBench(scope: Scope, loopId: string): Promise<void> {
  const [own] = await scope.select({ system }).from(loop).innerJoin(system, eq(system.id, loop.systemId)).where(eq(loop.id, loopId));
  if (!own) return;
  const runs = await scope
    .select({ state: run.state })
    .from(run)
    .innerJoin(loop, eq(loop.id, run.loopId))
    .where(eq(loop.systemId, own.system.id));
  if (runs.some(({ state }) => state === 'active')) return;
  const state = runs.some((each) => each.state === 'signed-off') ? 'in-service' : 'planned';
  await scope
    .update(system)
    .set({ state, version: own.system.version + 1 })
    .where(eq(system.id, own.system.id));
}

export async function readRecord({ scope, request }: Ask) {
  const runId = idFrom(request, 'id', 'run');
  const [row] = await scope.select().from(runRecord).where(eq(runRecord.runId, runId));
  if (!row) throw notFound('signed record');
  const corrections = (await loadEvents(scope, runId)).filter(({ body }) => body.type === 'correction');
  return { runId, record: row.record, corrections };
}
