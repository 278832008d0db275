import { say } from '../../../core/base/words/say.js';
import { eq } from 'drizzle-orm';
import { refuseEntry } from '../../../core/bench/runs/rules.js';
import type { RunState } from '../../../core/bench/runs/state.js';
import type { ResumeInput, WaitInput } from '../../../core/bench/runs/waitingSchema.js';
import { run } from '../../base/database/tables/runs.js';
import { slot } from '../../base/database/tables/planning.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import { pushNotice } from '../../base/push/notices.js';
import { lockLoop } from '../../machine/loops/lock.js';
import { moveHands } from '../commands/commands.js';
import { insertEvent, refusedBy } from '../runs/append.js';
import { keepContents } from '../runs/contents.js';
import { foldOf } from '../runs/folds.js';
import type { RunRow } from '../runs/openDates.js';
import { claimBench, leaveBench, machineOf, putOnBench, readRun } from '../runs/runs.js';
import { tellOthers } from '../services/tell.js';

/** The run's row, locked, and its log so far. Practice has no shelf to stand on. */
async function lockedRun({ scope, request }: Ask) {
  const runId = idFrom(request, 'id', 'run');
  const [row] = await scope.select().from(run).where(eq(run.id, runId)).for('update');
  if (!row) throw notFound('run');
  return { row, fold: await foldOf(scope, runId) };
}

function demandOpen(row: RunRow): string {
  if (row.state !== 'active') throw new DomainError('refused', say('This run is already closed.'));
  if (row.jobId === null)
    throw new DomainError('refused', say('A practice run does not wait; end it, and begin another one some other day.'));
  return row.jobId;
}

/** Writes the entry and keeps what is inside with it. @throws DomainError in the words of the rules */
async function join(ask: Ask, row: RunRow, id: string, body: Parameters<typeof refuseEntry>[3]): Promise<{ at: Date; before: RunState }> {
  const now = ask.clock.now();
  const fold = await foldOf(ask.scope, row.id);
  const refused = refuseEntry(row.procedure, fold.state, fold.events, body, now.getTime());
  if (refused) throw refusedBy(row.procedure, refused);
  const before = fold.snapshot();
  const seq = fold.events.length + 1;
  const { state } = fold.push(await insertEvent(ask, { id, runId: row.id, seq, at: now, body }));
  await keepContents(ask.scope, { ...row, runId: row.id, seq }, state.contents);
  return { at: now, before };
}

/**
 * A run waits: it keeps its liquid, its open ends and its step, and frees its bench. What concerns others is told at once.
 * One transaction: entry, bench, follow-ups and flags.
 */
export async function leaveToWait(ask: Ask, { id, ...waits }: WaitInput) {
  const { scope, account } = ask;
  const { row, fold } = await lockedRun(ask);
  if (fold.find(id)) return readRun(ask, row.id);
  const jobId = demandOpen(row);
  const { at, before } = await join(ask, row, id, { type: 'waits', ...waits });
  await tellOthers(ask, { row, jobId, systemId: await machineOf(scope, row.loopId), state: before });
  const { seen: _ticked, ...told } = waits;
  await scope
    .update(run)
    .set({ benchId: null, waits: { ...told, since: row.waits?.since ?? at.toISOString() } })
    .where(eq(run.id, row.id));
  await scope.delete(slot).where(eq(slot.jobId, jobId));
  if (!row.procedure.unit) await leaveBench(scope, row.loopId);
  if (row.benchId !== null) await moveHands(scope, account.workshopId, row.benchId, { do: 'leave' });
  await pushNotice(scope, account.workshopId, { kind: 'benches' });
  await pushNotice(scope, account.workshopId, { kind: 'dates' });
  return readRun(ask, row.id);
}

/** Back on a bench: the run goes on at the step where it stopped. */
export async function goOn(ask: Ask, { id, benchId, seen }: ResumeInput) {
  const { scope, account } = ask;
  const { row, fold } = await lockedRun(ask);
  if (fold.find(id)) return readRun(ask, row.id);
  demandOpen(row);
  const own = await lockLoop(scope, row.loopId);
  if (benchId !== null) await claimBench(scope, benchId, own.system.id);
  await join(ask, row, id, { type: 'resumed', seen });
  await scope.update(run).set({ benchId, waits: null }).where(eq(run.id, row.id));
  if (!row.procedure.unit) await putOnBench(scope, own.system);
  await pushNotice(scope, account.workshopId, { kind: 'benches' });
  return readRun(ask, row.id);
}
