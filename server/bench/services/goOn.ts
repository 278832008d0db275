import { say } from '../../../core/base/words/say.js';
import type { LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import type { RevisionKind } from '../../../core/machine/loop-file/revisionKinds.js';
import { OLD_COOLER_OUT } from '../../../core/bench/commissioning/intoLoop.js';
import type { RunEventBody } from '../../../core/bench/runs/entries/all.js';
import type { Procedure, ProcedureStep } from '../../../core/bench/runs/procedure.js';
import type { RunState } from '../../../core/bench/runs/state.js';
import { waitingNow } from '../../../core/bench/runs/waiting.js';
import { procedureAfterChange } from '../../../core/bench/services/changedLoop.js';
import { eq } from 'drizzle-orm';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import { loop, loopRevision } from '../../base/database/tables/loops.js';
import { run } from '../../base/database/tables/runs.js';
import { addRevision } from '../../machine/loops/revisions.js';
import { loadJob } from '../../workshop/jobs/jobs.js';
import { testsOf, tightOf } from '../commissioning/unit.js';
import { moveHands } from '../commands/commands.js';
import { commissioningProcedure } from '../procedures/ofCommissioning.js';
import { serviceProcedure } from '../procedures/ofService.js';
import { insertEvent } from '../runs/append.js';
import { keepContents } from '../runs/contents.js';
import { foldOf, forgetFold } from '../runs/folds.js';
import type { RunRow } from '../runs/openDates.js';
import { readRun } from '../runs/runs.js';

/** A run whose loop is about to change, held until the transaction ends. */
export async function runInProgress({ scope, request }: Ask) {
  const runId = idFrom(request, 'id', 'run');
  const [row] = await scope.select().from(run).where(eq(run.id, runId)).for('update');
  if (!row) throw notFound('run');
  if (row.state !== 'active') throw new DomainError('refused', say('This run is closed: its loop is changed in the drawing.'));
  if (row.jobId === null) throw new DomainError('refused', say('A practice run keeps the loop that it began with.'));
  if (row.procedure.unit) throw new DomainError('refused', say('A unit on its own stays as it is: end this run, and test it again.'));
  const { state } = await foldOf(scope, runId);
  if (waitingNow(state)) throw new DomainError('refused', say('This run waits: take it up again first.'));
  const [own] = await scope.select().from(loopRevision).where(eq(loopRevision.id, row.revisionId));
  if (!own) throw notFound('loop revision');
  return { row, state, own };
}

interface Changed {
  readonly row: RunRow;
  readonly kind: RevisionKind;
  readonly file: LoopFile;
  readonly reason: string;
  /** parts and tubes that are no more */
  readonly gone: readonly string[];
  /** how it reads in the log */
  readonly body: RunEventBody;
  /** steps that are done once more; missing: none */
  readonly again?: (step: ProcedureStep) => boolean;
}

/**
 * A run goes on with another loop: the loop gets its revision, what is inside passes over to that, and what is still to come (joints to
 * test, what to pour) is made for it.
 */
export async function goOnWith(ask: Ask, { row, kind, file, reason, gone, body, again }: Changed) {
  const { scope, account, clock } = ask;
  const runId = row.id;
  const { state, events } = await foldOf(scope, runId);
  const procedure = procedureAfterChange(row.procedure, await procedureAnew(ask, row, file, state), state, gone, again);
  const at = clock.now();
  const revision = await addRevision(scope, {
    workshopId: account.workshopId,
    loopId: row.loopId,
    kind,
    reason,
    personId: account.personId,
    file,
    at,
  });
  await scope.update(run).set({ procedure, revisionId: revision.id }).where(eq(run.id, runId));
  const seq = events.length + 1;
  await insertEvent(ask, { id: crypto.randomUUID(), runId, seq, at, body });
  forgetFold(runId);
  const after = await foldOf(scope, runId);
  await keepContents(scope, { ...row, workshopId: account.workshopId, runId, seq }, after.state.contents);
  // a simulated bench stands for the loop as it was: it is begun again for the one that is there now
  if (row.benchId !== null) await moveHands(scope, account.workshopId, row.benchId, { do: 'leave' });
  return readRun(ask, runId);
}

async function procedureAnew({ scope }: Ask, row: RunRow, file: LoopFile, state: RunState): Promise<Procedure> {
  const { service, schools } = row.procedure;
  const kept = new Set(file.tubes.map(({ id }) => id));
  const openedJoints = schools.leak === 'opened-joints' ? [...new Set([...state.openJoints, ...kept])].filter((id) => kept.has(id)) : [];
  const [own] = await scope.select({ coolant: loop.coolantProductId }).from(loop).where(eq(loop.id, row.loopId));
  const about = { loopId: row.loopId, file, schools, openedJoints, coolantProductId: own?.coolant ?? null };
  if (!service || row.jobId === null) {
    const fromCooler = row.procedure.steps.some(({ id }) => id === OLD_COOLER_OUT);
    const kind = fromCooler ? ('into-loop' as const) : ('commissioning' as const);
    return commissioningProcedure(scope, {
      ...about,
      kind,
      lostMl: null,
      testedAlone: tightOf(await testsOf(scope, row.loopId, file)),
      start: row.procedure.start ?? null,
    });
  }
  const { partId, beside, productId } = (await loadJob(scope, row.jobId)).service;
  return serviceProcedure(scope, {
    ...about,
    jobId: row.jobId,
    kind: service.kind,
    beside,
    pourId: productId,
    ...(service.change ? { change: service.change } : {}),
    partId: file.components.some(({ id }) => id === partId) ? partId : null,
    coolantProductId: service.old?.productId ?? null,
    ...(row.procedure.start ? { start: row.procedure.start } : {}),
  });
}
