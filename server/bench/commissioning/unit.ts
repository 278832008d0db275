import { and, asc, eq } from 'drizzle-orm';
import {
  entriesFrom,
  insideAfter,
  resultOf,
  unitOf,
  UNIT_SCHOOLS,
  type TestedAlone,
} from '../../../core/bench/commissioning/testedAlone.js';
import { buildProcedure } from '../../../core/bench/procedures/buildProcedure.js';
import type { Procedure } from '../../../core/bench/runs/procedure.js';
import { refuse } from '../../../core/base/checking/input.js';
import { formatDay } from '../../../core/base/units/dates.js';
import { dayIn } from '../../../core/base/units/calendar.js';
import { say } from '../../../core/base/words/say.js';
import { WATER } from '../../../core/machine/liquids/fluids.js';
import type { LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import { DRY_ML } from '../../../core/physics/live-book/insideNow.js';
import type { Scope } from '../../base/database/client.js';
import { isReal, run } from '../../base/database/tables/runs.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { job } from '../../base/database/tables/machines.js';
import { lockLoop } from '../../machine/loops/lock.js';
import { newestRevision } from '../../machine/loops/revisions.js';
import { claimFor, insertRun, readRun } from '../runs/runs.js';
import { demandDry } from './dry.js';
import type { UnitTestCreate } from '../../../core/bench/commissioning/schema.js';
import { DomainError } from '../../base/http/errors.js';
import { hasFill } from '../../machine/loops/inside.js';
import { demandDrawn } from '../../machine/loops/drawn.js';
import { inWorkshopsWay } from '../../workshop/people/inWorkshopsWay.js';
import { insertEvent } from '../runs/append.js';
import { leftByAbandoned, writeContents } from '../runs/contents.js';
import { foldOf } from '../runs/folds.js';

/** A pump and its reservoir out of the case: a small run before the build, and what the build takes over from it. */

/** A unit is out of its case only before its loop was ever filled. */
async function demandNothingInside(scope: Scope, loopId: string): Promise<void> {
  const left = await leftByAbandoned(scope, loopId);
  if ((await hasFill(scope, loopId)) || (left && (left.insideMl ?? Infinity) > DRY_ML))
    throw new DomainError('refused', say('This loop is built and was filled: its unit is not out of its case any more.'));
}

/** The small run of one unit. @throws InputProblem where the part is no pump that a reservoir feeds */
function unitProcedure(scope: Scope, file: LoopFile, pump: string): Promise<Procedure> {
  demandDrawn(file);
  const found = unitOf(file, pump, WATER);
  if (!found) refuse('pump', say('is no pump of this loop with a reservoir that feeds it'));
  return inWorkshopsWay(scope, () =>
    buildProcedure({ loop: found.file, unit: found.unit, schools: UNIT_SCHOOLS, order: null, coolantName: null, liquid: WATER }),
  );
}

/** Puts a unit on a bench. Nobody books that: it takes minutes, and the machine stands where it stood. */
export async function startUnitTest(ask: Ask, { pump, benchId }: UnitTestCreate) {
  const { scope, account, clock } = ask;
  const loopId = idFrom(ask.request, 'id', 'loop');
  const own = await lockLoop(scope, loopId);
  await claimFor(scope, loopId, benchId, own.system.id);
  await demandDry(scope, own.loop);
  await demandNothingInside(scope, loopId);
  const revision = await newestRevision(scope, loopId);
  const procedure = await unitProcedure(scope, revision.file, pump);
  const [made] = await scope
    .insert(job)
    .values({
      workshopId: account.workshopId,
      systemId: own.system.id,
      kind: 'unit-test',
      state: 'active',
      personId: account.personId,
      createdAt: clock.now(),
    })
    .returning({ id: job.id });
  return readRun(ask, await insertRun(ask, { jobId: (made as { id: string }).id, loopId, revisionId: revision.id, benchId, procedure }));
}

/** with the instant of its sign-off */
export type DatedTest = TestedAlone & { readonly at: Date };

/** The last test of each unit that is still part of the loop, with its day. */
export async function testsOf(scope: Scope, loopId: string, file: LoopFile): Promise<DatedTest[]> {
  const runs = await scope
    .select({ id: run.id, procedure: run.procedure, at: run.signedOffAt })
    .from(run)
    .where(and(eq(run.loopId, loopId), eq(run.state, 'signed-off'), isReal))
    .orderBy(asc(run.signedOffAt));
  const last = new Map<string, DatedTest>();
  for (const { id, procedure, at } of runs) {
    const tested = procedure.unit && resultOf(procedure, (await foldOf(scope, id)).state);
    if (tested && at && file.components.some((part) => part.id === tested.unit.pump)) last.set(tested.unit.pump, { ...tested, at });
  }
  return [...last.values()];
}

/** Pumps whose unit was found tight: nobody tests it again in the build. */
export const tightOf = (tests: readonly TestedAlone[]): string[] => tests.flatMap(({ unit, tight }) => (tight ? [unit.pump] : []));

/** What stays in units that were tested is what their loop holds from then on. */
export async function keepUnitContents(
  scope: Scope,
  of: { readonly workshopId: string; readonly loopId: string; readonly runId: string; readonly seq: number },
  file: LoopFile,
): Promise<void> {
  await writeContents(scope, of, insideAfter(file, WATER, await testsOf(scope, of.loopId, file)));
}

interface BuildOf {
  readonly runId: string;
  readonly loopId: string;
  readonly tests: readonly DatedTest[];
  /** an earlier build of it was broken off: what it left counts what stayed in the units */
  readonly hasStart: boolean;
}

/** The build begins with what was found of its units: tight with what stayed inside, or in doubt. */
export async function takeOverTests(ask: Ask, { runId, loopId, tests, hasStart }: BuildOf): Promise<void> {
  const { scope, account, clock } = ask;
  const bodies = await inWorkshopsWay(scope, () =>
    tests.flatMap((tested) => entriesFrom(tested, formatDay(dayIn(account.timeZone, tested.at)), hasStart)),
  );
  if (bodies.length === 0) return;
  for (const [nth, body] of bodies.entries())
    await insertEvent(ask, { id: crypto.randomUUID(), runId, seq: nth + 1, at: clock.now(), body });
  const { state } = await foldOf(scope, runId);
  await writeContents(scope, { workshopId: account.workshopId, loopId, runId, seq: bodies.length }, state.contents);
}
