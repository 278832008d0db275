import { say } from '../../../core/base/words/say.js';
import { demandDry } from './dry.js';
import { demandOneCircuit } from '../../machine/loops/circuits.js';
import { lockLoop } from '../../machine/loops/lock.js';
import { newestRevision } from '../../machine/loops/revisions.js';
import { insertRun, demandJoints, putOnBench, readRun, claimFor } from '../runs/runs.js';
import { leftByAbandoned } from '../runs/contents.js';
import type { RunCreate } from '../../../core/bench/commissioning/schema.js';
import { type Ask } from '../../base/http/context.js';
import { DomainError } from '../../base/http/errors.js';
import { commissioningProcedure } from '../procedures/ofCommissioning.js';
import { withAllowance } from '../procedures/loadsMayStay.js';
import { serviceProcedure } from '../procedures/ofService.js';
import { takeOverTests, testsOf, tightOf } from './unit.js';
import { demandSimulation, notePractice, practiceTable } from '../practice/practice.js';
import { and, eq, inArray } from 'drizzle-orm';
import type { Scope } from '../../base/database/client.js';
import { serviceJob } from '../../base/database/tables/jobs.js';
import { buildKinds } from '../../../core/workshop/job-kinds/kinds.js';
import { job } from '../../base/database/tables/machines.js';

/** A build that was booked goes onto its bench from its job: its consent, its slot and its parts hang on that. */
async function demandUnbooked(scope: Scope, loopId: string): Promise<void> {
  const [booked] = await scope
    .select({ id: job.id })
    .from(serviceJob)
    .innerJoin(job, eq(job.id, serviceJob.jobId))
    .where(and(eq(serviceJob.loopId, loopId), inArray(job.kind, buildKinds), inArray(job.state, ['booked', 'waiting'])));
  if (booked)
    throw new DomainError('conflict', say('The build of this loop is booked; put it on a bench from its job.'), { jobId: booked.id });
}

/** Puts a machine on a bench and starts the commissioning of one of its loops. */
export async function startRun(ask: Ask, input: RunCreate) {
  const { scope, account, clock } = ask;
  const own = await lockLoop(scope, input.loopId);
  if (!input.practice) await claimFor(scope, input.loopId, input.benchId, own.system.id);
  const revision = await newestRevision(scope, input.loopId);
  demandOneCircuit(revision.file);
  if (!input.practice) {
    await demandDry(scope, own.loop);
    await demandUnbooked(scope, input.loopId);
  }
  if (input.practice) demandSimulation(revision.file);
  if (input.schools.leak === 'opened-joints') demandJoints(revision.file, input.openedJoints);
  const practised = input.practice?.job ?? null;
  const partId = practised?.partId ?? null;
  if (partId !== null && !revision.file.components.some(({ id }) => id === partId))
    throw new DomainError('refused', say('The part that is to be changed is not in this loop; choose one that is.'));
  const tests = input.practice ? [] : await testsOf(scope, input.loopId, revision.file);
  const procedure = practised
    ? await serviceProcedure(scope, {
        ...practised,
        jobId: '',
        loopId: input.loopId,
        file: revision.file,
        schools: input.schools,
        openedJoints: input.openedJoints,
        coolantProductId: own.loop.coolantProductId,
        atMark: true,
      })
    : await commissioningProcedure(scope, {
        loopId: input.loopId,
        file: revision.file,
        schools: input.schools,
        openedJoints: input.openedJoints,
        lostMl: input.lostMl,
        coolantProductId: own.loop.coolantProductId,
        testedAlone: tightOf(tests),
        start: input.practice ? null : await leftByAbandoned(scope, input.loopId),
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
    benchId: input.practice ? await practiceTable(ask) : input.benchId,
    procedure: input.practice ? procedure : await withAllowance(scope, account.workshopId, 'commissioning', procedure),
  });
  if (input.practice) await notePractice(ask, runId, input.practice);
  else {
    await takeOverTests(ask, { runId, loopId: input.loopId, tests, hasStart: procedure.start !== undefined });
    await putOnBench(scope, own.system);
  }
  return readRun(ask, runId);
}
