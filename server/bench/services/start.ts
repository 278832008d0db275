import { say, sayWord } from '../../../core/base/words/say.js';
import { pricedEstimate } from '../../workshop/prices/estimate.js';
import { cannotBecome, stepsAfterRescope, type RescopeHindrance } from '../../../core/bench/services/rescope.js';
import { lockLoop } from '../../machine/loops/lock.js';
import { demandOneCircuit } from '../../machine/loops/circuits.js';
import { newestRevision } from '../../machine/loops/revisions.js';
import { and, eq } from 'drizzle-orm';
import { type Procedure } from '../../../core/bench/runs/procedure.js';
import { refuse } from '../../../core/base/checking/input.js';
import type { Schools } from '../../../core/physics/leak-testing/schools.js';
import { asBookedKind, changesLoop, isBuild, JOB_KINDS, type JobKind } from '../../../core/workshop/job-kinds/kinds.js';
import type { JobStart, RescopeInput } from '../../../core/workshop/jobs/schema.js';
import { insertEvent } from '../runs/append.js';
import { foldOf, forgetFold } from '../runs/folds.js';
import { demandJoints, claimFor, insertRun, putOnBench, readRun } from '../runs/runs.js';
import { run } from '../../base/database/tables/runs.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import { job } from '../../base/database/tables/machines.js';
import { demandAgreed } from './askedScope.js';
import { consentsOf, loadJob } from '../../workshop/jobs/jobs.js';
import { demandDry } from '../commissioning/dry.js';
import { takeOverTests, testsOf, tightOf } from '../commissioning/unit.js';
import { leftByAbandoned } from '../runs/contents.js';
import { commissioningProcedure } from '../procedures/ofCommissioning.js';
import { wantedFile } from '../../workshop/jobs/wanted.js';
import { withAllowance } from '../procedures/loadsMayStay.js';
import { serviceProcedure } from '../procedures/ofService.js';
import { consent, serviceJob } from '../../base/database/tables/jobs.js';

/** Puts a booked machine on a bench and begins its led procedure. The owner must have agreed first. */
export async function startJob(ask: Ask, input: JobStart) {
  const { scope } = ask;
  const jobId = idFrom(ask.request, 'id', 'job');
  const row = await loadJob(scope, jobId);
  if (!['booked', 'waiting'].includes(row.job.state)) throw new DomainError('refused', say('This job was begun already, or is over.'));
  const consents = await consentsOf(scope, jobId);
  if (!consents.some(({ estimateNumber }) => estimateNumber === row.service.estimateNumber))
    throw new DomainError('refused', say('The owner has not agreed to this estimate yet: ask, then write the consent down.'));
  const own = await lockLoop(scope, row.service.loopId);
  await claimFor(scope, row.service.loopId, input.benchId, own.system.id);
  const revision = await newestRevision(scope, row.service.loopId);
  demandOneCircuit(revision.file);
  const kind = asBookedKind(row.job.kind);
  if (isBuild(kind)) await demandDry(scope, own.loop);
  if (input.schools.leak === 'opened-joints') demandJoints(revision.file, input.openedJoints);
  const of = {
    loopId: row.service.loopId,
    file: revision.file,
    schools: input.schools,
    openedJoints: input.openedJoints,
    coolantProductId: own.loop.coolantProductId,
  };
  const tests = isBuild(kind) ? await testsOf(scope, of.loopId, of.file) : [];
  const planned = isBuild(kind)
    ? await commissioningProcedure(scope, {
        ...of,
        kind,
        lostMl: null,
        testedAlone: tightOf(tests),
        start: await leftByAbandoned(scope, of.loopId),
      })
    : await serviceProcedure(scope, {
        ...of,
        jobId,
        kind,
        partId: row.service.partId,
        beside: row.service.beside,
        pourId: row.service.productId,
        wanted: (await wantedFile(scope, row.service.wantedRevisionId))?.file,
      });
  const procedure = await withAllowance(scope, ask.account.workshopId, kind, planned);
  const runId = await insertRun(ask, { jobId, loopId: row.service.loopId, revisionId: revision.id, benchId: input.benchId, procedure });
  if (isBuild(kind)) await takeOverTests(ask, { runId, loopId: of.loopId, tests, hasStart: procedure.start !== undefined });
  await scope.update(job).set({ state: 'active' }).where(eq(job.id, jobId));
  // what stands on a bench was brought, whether somebody wrote it down or not
  if (row.service.broughtOn === null)
    await scope.update(serviceJob).set({ broughtOn: ask.today, notComeOn: null }).where(eq(serviceJob.jobId, jobId));
  await putOnBench(scope, own.system);
  return readRun(ask, runId);
}

const OPENS = ['not', 'top', 'part', 'whole'] as const;
/** A job that opens more than was planned asks how that is tested; it decides nothing by itself. */
function schoolsAfter(now: Schools, before: JobKind, { kind, schools }: RescopeInput): Schools {
  if (schools) return { ...now, ...schools };
  const { opens } = JOB_KINDS[kind];
  if (OPENS.indexOf(opens) > Math.max(1, OPENS.indexOf(JOB_KINDS[before].opens)))
    refuse('schools', say('this opens more joints than was planned: say how leaks are looked for'));
  return now;
}

const CANNOT_BECOME: Readonly<Record<RescopeHindrance['why'], string>> = {
  'was-drained': 'Liquid was let out: it can only become a job that fills the loop again.',
  'was-taken-apart': 'Joints were opened: it can only become a job that closes and tests them.',
};

/**
 * Findings made the job bigger, or smaller: its steps change, what was done stays done. The owner's consent to the new
 * estimate is written down with it; without it nobody goes on.
 */
export async function rescope(ask: Ask, input: RescopeInput) {
  const { scope, account, clock } = ask;
  const runId = idFrom(ask.request, 'id', 'run');
  const [row] = await scope.select().from(run).where(eq(run.id, runId)).for('update');
  if (!row) throw notFound('run');
  const before = row.procedure.service;
  if (row.state !== 'active' || !before || row.jobId === null)
    throw new DomainError('refused', say('Only a service in progress changes its scope.'));
  if (before.kind === input.kind)
    throw new DomainError('refused', say('This job is {label} already.', { label: sayWord(JOB_KINDS[input.kind].label) }));
  const { service: own } = await loadJob(scope, row.jobId);
  const byPage = input.how === 'page';
  if (byPage) await demandAgreed(scope, row.jobId, own, input.kind);
  if (changesLoop(input.kind))
    throw new DomainError('refused', say('What the loop shall become is drawn first: end this run, draw it as wanted, and book its job.'));
  const revision = await newestRevision(scope, row.loopId);
  const { state, events } = await foldOf(scope, runId);
  const seq = events.length + 1;
  const at = state.current ?? 'kit';
  const opened = row.procedure.schools.leak === 'opened-joints' ? [...new Set(revision.file.tubes.map(({ id }) => id))] : [];
  const made = await serviceProcedure(scope, {
    jobId: row.jobId,
    kind: input.kind,
    partId: own.partId,
    beside: own.beside,
    pourId: own.productId,
    ...(before.change ? { change: before.change } : {}),
    loopId: row.loopId,
    file: revision.file,
    schools: schoolsAfter(row.procedure.schools, before.kind, input),
    openedJoints: opened,
    coolantProductId: before.old?.productId ?? null,
    ...(row.procedure.start ? { start: row.procedure.start } : {}),
  });
  const hindered = cannotBecome(row.procedure, state, input.kind);
  if (hindered) throw new DomainError('refused', say(CANNOT_BECOME[hindered.why]));
  const steps = stepsAfterRescope(row.procedure, made, input.kind, state);
  await scope
    .update(run)
    .set({
      procedure: {
        ...(await withAllowance(scope, account.workshopId, input.kind, made)),
        steps,
        service: { ...(made.service as object), inside: before.inside } as Procedure['service'],
      },
    })
    .where(eq(run.id, runId));
  await scope.update(job).set({ kind: input.kind }).where(eq(job.id, row.jobId));
  const estimate = byPage ? own.estimate : await pricedEstimate(ask, input.kind, row.loopId, input.estimate, own.productId);
  const estimateNumber = byPage ? own.estimateNumber : own.estimateNumber + 1;
  await scope
    .update(serviceJob)
    .set({ estimate, estimateNumber, ...(byPage ? {} : { estimateAt: clock.now() }), asked: null, version: own.version + 1 })
    .where(and(eq(serviceJob.jobId, row.jobId)));
  if (input.how !== 'page')
    await scope.insert(consent).values({
      workshopId: account.workshopId,
      jobId: row.jobId,
      kind: input.kind,
      estimate,
      estimateNumber,
      how: input.how,
      words: input.reason,
      personId: account.personId,
      createdAt: clock.now(),
    });
  await insertEvent(ask, {
    id: crypto.randomUUID(),
    runId,
    seq,
    at: clock.now(),
    body: { type: 'rescoped', step: at, kind: input.kind, reason: input.reason },
  });
  forgetFold(runId);
  return readRun(ask, runId);
}
