import { asSentence, say } from '../../../core/base/words/say.js';
import { pumpHindersLeaving } from '../../../core/bench/runs/waiting.js';
import { whyWords } from '../../../core/edge/words/bench.js';
import { leaveBench, machineOf } from '../runs/runs.js';
import { moveHands } from '../commands/commands.js';
import { eq } from 'drizzle-orm';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import { pushNotice } from '../../base/push/notices.js';
import { job } from '../../base/database/tables/machines.js';
import { serviceJob } from '../../base/database/tables/jobs.js';
import { keepContents } from '../runs/contents.js';
import { foldOf } from '../runs/folds.js';
import { putBack } from '../services/putBack.js';
import { tellOthers } from '../services/tell.js';
import { run } from '../../base/database/tables/runs.js';

/** Takes a machine off the bench without a record. The log stays. */
export async function abandonRun(ask: Ask, reason: string) {
  const { scope, request } = ask;
  const runId = idFrom(request, 'id', 'run');
  const [row] = await scope.select().from(run).where(eq(run.id, runId)).for('update');
  if (!row) throw notFound('run');
  if (row.state !== 'active') throw new DomainError('refused', say('This run is already closed.'));
  const { state, events } = await foldOf(scope, runId);
  const hindered = row.jobId === null ? null : pumpHindersLeaving(state);
  if (hindered) throw new DomainError('refused', asSentence(whyWords(row.procedure, hindered)));
  await scope.update(run).set({ state: 'abandoned', waits: null }).where(eq(run.id, runId));
  await pushNotice(scope, ask.account.workshopId, { kind: 'benches' });
  await pushNotice(scope, ask.account.workshopId, { kind: 'dates' });
  if (row.benchId !== null) await moveHands(scope, ask.account.workshopId, row.benchId, { do: 'leave' });
  if (row.jobId === null) return { id: runId, state: 'abandoned' };
  // nothing is lost: the next run begins with what stands inside
  if (events.length > 0) await keepContents(scope, { ...row, runId, seq: events.length }, state.contents);
  await tellOthers(ask, { row, jobId: row.jobId, systemId: await machineOf(scope, row.loopId), state });
  // what was booked is booked again; a commissioning that nobody booked is over
  const [booked] = await scope.select({ id: serviceJob.jobId }).from(serviceJob).where(eq(serviceJob.jobId, row.jobId));
  if (booked) await putBack(ask, row.jobId, reason);
  else await scope.update(job).set({ state: 'cancelled', note: reason }).where(eq(job.id, row.jobId));
  if (!row.procedure.unit) await leaveBench(scope, row.loopId);
  return { id: runId, state: 'abandoned' };
}
