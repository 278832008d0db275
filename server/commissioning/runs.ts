import { and, desc, eq, ne, sql } from 'drizzle-orm';
import { buildProcedure } from '../../core/commissioning/procedure.js';
import type { RunCreate } from '../../core/commissioning/schema.js';
import { refuse } from '../../core/checking/check.js';
import { cannotSimulate } from '../../core/simulated-bench/bench.js';
import { liquidOf } from '../../core/flow/fluids.js';
import type { LoopFile } from '../../core/loops/loopFile.js';
import { orderCoolant, type CoolantOrder } from '../../core/coolants/order.js';
import { fillVolume } from '../../core/filling/fillPlan.js';
import { bench } from '../accounts/tables.js';
import { coolantProduct } from '../coolants/tables.js';
import type { Scope } from '../database/client.js';
import { idFrom, type Ask } from '../http/context.js';
import { DomainError, notFound } from '../http/errors.js';
import { loop, loopRevision } from '../loops/tables.js';
import { moveHands } from '../instruments/commands.js';
import { claimForPractice, notePractice, practiceOf } from '../practice/practice.js';
import { customer, job, system } from '../systems/tables.js';
import { loadEvents } from './append.js';
import { putBack } from '../jobs/putBack.js';
import { newestProcedure } from './procedures.js';
import { isReal, run, runRecord } from './tables.js';

/** Puts a machine on a bench and starts the commissioning of one of its loops. */
export async function startRun(ask: Ask, input: RunCreate) {
  const { scope, account, clock } = ask;
  const own = await lockLoop(scope, input.loopId);
  if (input.practice) await claimForPractice(scope, input.benchId);
  else await claimFor(scope, input.loopId, input.benchId, own.system.id);
  const revision = await newestRevision(scope, input.loopId);
  const why = input.practice ? cannotSimulate(revision.file) : null;
  if (why !== null) throw new DomainError('refused', `This loop cannot be practised on: ${why}.`);
  const product = await productOf(scope, own.loop.coolantProductId);
  if (input.schools.leak === 'opened-joints') checkJoints(revision.file, input.openedJoints);
  const ours = await newestProcedure(scope, 'commissioning');
  const procedure = buildProcedure({
    loop: revision.file,
    schools: input.schools,
    order: orderFor(revision.file, product),
    coolantName: product?.name ?? null,
    liquid: liquidOf(product),
    ...(input.lostMl === null ? {} : { opened: { joints: input.openedJoints, lostMl: input.lostMl } }),
    ...(ours ? { template: ours.template, templateNumber: ours.number } : {}),
  });

  const at = clock.now();
  const [madeJob] = input.practice
    ? []
    : await scope
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
  const runId = await insertRun(ask, {
    jobId: madeJob?.id ?? null,
    loopId: input.loopId,
    revisionId: revision.id,
    benchId: input.benchId,
    procedure,
  });
  if (input.practice) await notePractice(ask, runId, input.practice);
  else await putOnBench(scope, own.system);
  return readRun(ask, runId);
}

/** The loop with its machine, locked against a second start. Retired ones are refused. */
export async function lockLoop(scope: Scope, loopId: string) {
  const [own] = await scope
    .select({ loop, system })
    .from(loop)
    .innerJoin(system, eq(system.id, loop.systemId))
    .where(eq(loop.id, loopId))
    .for('update');
  if (!own) throw notFound('loop');
  if (own.system.state === 'retired') throw new DomainError('refused', 'This system is retired; bring it back into service first.');
  return own;
}

/** One run at a time on a loop, one machine at a time on a bench. */
export async function claimFor(scope: Scope, loopId: string, benchId: string | null, systemId: string): Promise<void> {
  const [active] = await scope
    .select({ id: run.id })
    .from(run)
    .where(and(eq(run.loopId, loopId), eq(run.state, 'active'), isReal));
  if (active) throw new DomainError('conflict', 'This loop already has a run in progress; open it.', { runId: active.id });
  if (benchId !== null) await claimBench(scope, benchId, systemId);
}

export async function newestRevision(scope: Scope, loopId: string): Promise<typeof loopRevision.$inferSelect> {
  const [revision] = await scope
    .select()
    .from(loopRevision)
    .where(eq(loopRevision.loopId, loopId))
    .orderBy(desc(loopRevision.number))
    .limit(1);
  if (!revision) throw notFound('loop revision');
  return revision;
}

type ProductRow = typeof coolantProduct.$inferSelect;

export async function productOf(scope: Scope, productId: string | null): Promise<ProductRow | null> {
  if (productId === null) return null;
  const [product] = await scope.select().from(coolantProduct).where(eq(coolantProduct.id, productId));
  return product ?? null;
}

export const orderFor = (file: LoopFile, product: ProductRow | null): CoolantOrder | null =>
  product &&
  orderCoolant(fillVolume(file), {
    form: product.form as 'ready-mix' | 'concentrate',
    targetFraction: product.targetFraction,
    bottleMl: product.bottleMl,
  });

export async function insertRun(
  { scope, account, clock }: Ask,
  given: Pick<typeof run.$inferInsert, 'jobId' | 'loopId' | 'revisionId' | 'benchId' | 'procedure'>,
): Promise<string> {
  const at = clock.now();
  const [made] = await scope
    .insert(run)
    .values({ ...given, workshopId: account.workshopId, startedAt: at, personId: account.personId, createdAt: at })
    .returning({ id: run.id });
  return (made as { id: string }).id;
}

export const putOnBench = (scope: Scope, { id, version }: { id: string; version: number }) =>
  scope
    .update(system)
    .set({ state: 'on-bench', version: version + 1 })
    .where(eq(system.id, id));

export function checkJoints(file: LoopFile, joints: readonly string[]): void {
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
  return {
    ...row,
    events: await loadEvents(scope, runId),
    practice: row.run.jobId === null ? await practiceOf(scope, runId) : null,
    now: clock.now().toISOString(),
  };
}

/** Takes a machine off the bench without a record. The log stays. */
export async function abandonRun(ask: Ask, reason: string) {
  const { scope, request } = ask;
  const runId = idFrom(request, 'id', 'run');
  const [row] = await scope.select().from(run).where(eq(run.id, runId)).for('update');
  if (!row) throw notFound('run');
  if (row.state !== 'active') throw new DomainError('refused', 'This run is already closed.');
  await scope.update(run).set({ state: 'abandoned' }).where(eq(run.id, runId));
  if (row.benchId !== null) await moveHands(scope, ask.account.workshopId, row.benchId, { do: 'leave' });
  if (row.jobId === null) return { id: runId, state: 'abandoned' };
  if (row.procedure.service) await putBack(ask, row.jobId, reason);
  else await scope.update(job).set({ state: 'cancelled', note: reason }).where(eq(job.id, row.jobId));
  await leaveBench(scope, row.loopId);
  return { id: runId, state: 'abandoned' };
}

/** None of its loops is alive any more: nothing falls due, its history stays. */
export const retireSystem = (scope: Scope, systemId: string) =>
  scope
    .update(system)
    .set({ state: 'retired', version: sql`${system.version} + 1` })
    .where(eq(system.id, systemId));

/** The machine leaves the bench once none of its loops is being worked on. It was in service if it ever had a signed-off run. */
export async function leaveBench(scope: Scope, loopId: string): Promise<void> {
  const [own] = await scope.select({ system }).from(loop).innerJoin(system, eq(system.id, loop.systemId)).where(eq(loop.id, loopId));
  if (!own) return;
  const runs = await scope
    .select({ state: run.state, serviced: sql<boolean>`${run.procedure} ? 'service'` })
    .from(run)
    .innerJoin(loop, eq(loop.id, run.loopId))
    .where(and(eq(loop.systemId, own.system.id), isReal));
  if (runs.some(({ state }) => state === 'active')) return;
  // a machine that came in for service was in use, whoever commissioned it
  const state = runs.some((each) => each.state === 'signed-off' || each.serviced) ? 'in-service' : 'planned';
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
