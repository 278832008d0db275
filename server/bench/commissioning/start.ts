import { contentsOf } from '../../machine/loops/inside.js';
import { demandOneCircuit, pumpsBeside } from '../../machine/loops/circuits.js';
import { lockLoop } from '../../machine/loops/lock.js';
import { newestRevision } from '../../machine/loops/revisions.js';
import { insertRun, demandJoints, putOnBench, readRun, claimFor } from '../runs/runs.js';
import { orderFor, productOf } from '../../workshop/coolants/products.js';
import { leftByAbandoned } from '../runs/contents.js';
import { newestProcedure } from '../runs/procedures.js';
import { buildProcedure } from '../../../core/bench/procedures/buildProcedure.js';
import type { RunCreate } from '../../../core/bench/commissioning/schema.js';
import { liquidOf } from '../../../core/machine/liquids/fluids.js';
import type { LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import type { LoopContents } from '../../../core/physics/live-book/loopContents.js';
import type { Procedure } from '../../../core/bench/runs/procedure.js';
import type { Scope } from '../../base/database/client.js';
import { type Ask } from '../../base/http/context.js';
import { DomainError } from '../../base/http/errors.js';
import { fittedIn } from '../../workshop/lots/lots.js';
import { demandSimulation, notePractice, practiceTable } from '../practice/practice.js';
import { job } from '../../base/database/tables/machines.js';

interface CommissioningOf extends Pick<RunCreate, 'loopId' | 'schools' | 'openedJoints' | 'lostMl'> {
  readonly file: LoopFile;
  readonly coolantProductId: string | null;
  /** what an earlier run left inside */
  readonly start: LoopContents | null;
}

/** The commissioning of a loop as it is built, with the workshop's own words. */
export async function commissioningFor(scope: Scope, of: CommissioningOf): Promise<Procedure> {
  const product = await productOf(scope, of.coolantProductId);
  const ours = await newestProcedure(scope, 'commissioning');
  return buildProcedure({
    loop: of.file,
    schools: of.schools,
    order: orderFor(of.file, product),
    coolantName: product?.name ?? null,
    liquid: liquidOf(product),
    pumpsBeside: await pumpsBeside(scope, of.loopId),
    fitted: await fittedIn(scope, of.loopId),
    ...(of.start ? { start: of.start } : {}),
    ...(of.lostMl === null ? {} : { opened: { joints: of.openedJoints, lostMl: of.lostMl } }),
    ...(ours ? { template: ours.template, templateNumber: ours.number } : {}),
  });
}

/** Puts a machine on a bench and starts the commissioning of one of its loops. */
export async function startRun(ask: Ask, input: RunCreate) {
  const { scope, account, clock } = ask;
  const own = await lockLoop(scope, input.loopId);
  if (!input.practice) await claimFor(scope, input.loopId, input.benchId, own.system.id);
  const revision = await newestRevision(scope, input.loopId);
  demandOneCircuit(revision.file);
  if (!input.practice && own.loop.cameFilled && (await contentsOf(scope, input.loopId)) === null)
    throw new DomainError('refused', 'This loop came filled: take it in as a service. A commissioning begins with a dry loop.');
  if (input.practice) demandSimulation(revision.file);
  if (input.schools.leak === 'opened-joints') demandJoints(revision.file, input.openedJoints);
  const procedure = await commissioningFor(scope, {
    loopId: input.loopId,
    file: revision.file,
    schools: input.schools,
    openedJoints: input.openedJoints,
    lostMl: input.lostMl,
    coolantProductId: own.loop.coolantProductId,
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
    procedure,
  });
  if (input.practice) await notePractice(ask, runId, input.practice);
  else await putOnBench(scope, own.system);
  return readRun(ask, runId);
}
