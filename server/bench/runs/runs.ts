import { say } from '../../../core/base/words/say.js';
import { practiceOf } from './practised.js';
import { and, eq, ne, sql } from 'drizzle-orm';
import type { RunAnswer } from '../../../core/bench/benches/answers.js';
import { wantedMeanwhile } from '../../machine/loops/revisions.js';
import { loopOfRun } from '../../../core/bench/runs/procedure.js';
import { refuse } from '../../../core/base/checking/input.js';
import type { LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import { bench, isRealBench } from '../../base/database/tables/people.js';
import type { Scope } from '../../base/database/client.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import { serviceJob } from '../../base/database/tables/jobs.js';
import { loop, loopRevision } from '../../base/database/tables/loops.js';
import { pushNotice } from '../../base/push/notices.js';
import { owner, system } from '../../base/database/tables/machines.js';
import { loadEvents } from './folds.js';
import { isOfLoop, isReal, run, runRecord } from '../../base/database/tables/runs.js';

/** One run at a time on a loop, one machine at a time on a bench. */
export async function claimFor(scope: Scope, loopId: string, benchId: string | null, systemId: string): Promise<void> {
  const [active] = await scope
    .select({ id: run.id })
    .from(run)
    .where(and(eq(run.loopId, loopId), eq(run.state, 'active'), isReal));
  if (active) throw new DomainError('conflict', say('This loop already has a run in progress; open it.'), { runId: active.id });
  if (benchId !== null) await claimBench(scope, benchId, systemId);
}

export async function insertRun(
  { scope, account, clock }: Ask,
  given: Pick<typeof run.$inferInsert, 'jobId' | 'loopId' | 'revisionId' | 'benchId' | 'procedure'>,
): Promise<string> {
  const at = clock.now();
  const [made] = await scope
    .insert(run)
    .values({ ...given, stage: 'preparing', workshopId: account.workshopId, startedAt: at, personId: account.personId, createdAt: at })
    .returning({ id: run.id });
  await pushNotice(scope, account.workshopId, { kind: 'benches' });
  return (made as { id: string }).id;
}

export const putOnBench = (scope: Scope, { id }: { id: string }) =>
  scope
    .update(system)
    .set({ state: 'on-bench', version: sql`${system.version} + 1` })
    .where(eq(system.id, id));

export function demandJoints(file: LoopFile, joints: readonly string[]): void {
  const known = new Set(file.tubes.map(({ id }) => id));
  const astray = joints.findIndex((id) => !known.has(id));
  if (astray >= 0) refuse(`openedJoints[${astray}]`, say('"{astray}" is not a tube of this loop', { astray: joints[astray] }));
}

/** A bench holds one machine; two loops of the same machine may be worked on there at once. */
export async function claimBench(scope: Scope, benchId: string, systemId: string): Promise<void> {
  const [place] = await scope
    .select()
    .from(bench)
    .where(and(eq(bench.id, benchId), isRealBench))
    .for('update');
  if (!place) throw notFound('bench');
  const [other] = await scope
    .select({ name: system.name })
    .from(run)
    .innerJoin(loop, eq(loop.id, run.loopId))
    .innerJoin(system, eq(system.id, loop.systemId))
    .where(and(eq(run.benchId, benchId), eq(run.state, 'active'), ne(system.id, systemId)))
    .limit(1);
  if (other)
    throw new DomainError('conflict', say('{name} is taken by {name2}; choose another bench.', { name: place.name, name2: other.name }));
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
      ownerName: owner.name,
      revisionNumber: loopRevision.number,
      file: loopRevision.file,
      // what the job will pour goes before what the loop was filled with
      coolantProductId: sql<string | null>`coalesce(${serviceJob.productId}, ${loop.coolantProductId})`,
    })
    .from(run)
    .innerJoin(loop, eq(loop.id, run.loopId))
    .innerJoin(system, eq(system.id, loop.systemId))
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .innerJoin(loopRevision, eq(loopRevision.id, run.revisionId))
    .leftJoin(bench, eq(bench.id, run.benchId))
    .leftJoin(serviceJob, eq(serviceJob.jobId, run.jobId))
    .where(eq(run.id, runId));
  if (!row) throw notFound('run');
  return {
    ...row,
    file: loopOfRun(row.file, row.run.procedure),
    wanted: await wantedFor(scope, row),
    events: await loadEvents(scope, runId),
    practice: row.run.jobId === null ? await practiceOf(scope, runId) : null,
    now: clock.now().toISOString(),
  };
}

/** A drawing that a build may go on with; null: there is none, or this is no build that goes on. */
async function wantedFor(
  scope: Scope,
  { run: { jobId, loopId, state, procedure }, revisionNumber }: { readonly run: typeof run.$inferSelect; readonly revisionNumber: number },
): Promise<RunAnswer['wanted']> {
  if (jobId === null || state !== 'active' || procedure.service || procedure.unit) return null;
  return wantedMeanwhile(scope, loopId, revisionNumber);
}

/** None of its loops is alive any more: nothing falls due, its history stays. */
export const retireSystem = (scope: Scope, systemId: string) =>
  scope
    .update(system)
    .set({ state: 'retired', version: sql`${system.version} + 1` })
    .where(eq(system.id, systemId));

/** id of the machine that a loop belongs to */
export async function machineOf(scope: Scope, loopId: string): Promise<string> {
  const [own] = await scope.select({ systemId: loop.systemId }).from(loop).where(eq(loop.id, loopId));
  if (!own) throw notFound('loop');
  return own.systemId;
}

/** The machine leaves the bench once none of its loops is being worked on there. It was in service if it ever had a signed-off run. */
export async function leaveBench(scope: Scope, loopId: string): Promise<void> {
  const [own] = await scope.select({ system }).from(loop).innerJoin(system, eq(system.id, loop.systemId)).where(eq(loop.id, loopId));
  if (!own) return;
  const runs = await scope
    .select({ state: run.state, waits: run.waits, serviced: sql<boolean>`${run.procedure} ? 'service'` })
    .from(run)
    .innerJoin(loop, eq(loop.id, run.loopId))
    .where(and(eq(loop.systemId, own.system.id), isReal, isOfLoop));
  const open = runs.filter(({ state }) => state === 'active');
  if (open.some(({ waits }) => waits === null)) return;
  // a machine that came in for service was in use, whoever commissioned it
  const idle = runs.some((each) => each.state === 'signed-off' || each.serviced) ? 'in-service' : 'planned';
  const state = open.length > 0 ? 'waiting' : idle;
  await scope
    .update(system)
    .set({ state, version: sql`${system.version} + 1` })
    .where(eq(system.id, own.system.id));
}

export async function readRecord({ scope, request }: Ask) {
  const runId = idFrom(request, 'id', 'run');
  const [row] = await scope.select().from(runRecord).where(eq(runRecord.runId, runId));
  if (!row) throw notFound('signed record');
  const corrections = (await loadEvents(scope, runId)).filter(({ body }) => body.type === 'correction');
  return { runId, record: row.record, corrections };
}
