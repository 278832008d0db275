import { eq } from 'drizzle-orm';
import type { RunEvent } from '../../../core/bench/runs/log.js';
import { loopOfRun } from '../../../core/bench/runs/procedure.js';
import type { RunState } from '../../../core/bench/runs/state.js';
import { dayIn } from '../../../core/base/units/calendar.js';
import { buildRecord } from '../../../core/edge/records/record.js';
import { loop, loopRevision } from '../../base/database/tables/loops.js';
import { job, owner, system } from '../../base/database/tables/machines.js';
import { run, runRecord } from '../../base/database/tables/runs.js';
import type { Ask } from '../../base/http/context.js';
import { notFound } from '../../base/http/errors.js';
import { pushNotice } from '../../base/push/notices.js';
import { moveHands } from '../commands/commands.js';
import { keepUnitContents } from '../commissioning/unit.js';
import type { RunRow } from '../runs/openDates.js';

interface UnitRun {
  readonly row: RunRow;
  readonly jobId: string;
  readonly state: RunState;
  readonly events: readonly RunEvent[];
}

/** Closes the test of a unit out of its case: its record, and what stays inside. No date opens, no loop becomes "as built". */
export async function signOffUnit(ask: Ask, { row, jobId, state, events }: UnitRun) {
  const { scope, account, clock } = ask;
  const now = clock.now();
  const on = dayIn(account.timeZone, now);
  const [of] = await scope
    .select({ system: system.name, owner: owner.name, loop: loop.name, number: loopRevision.number, file: loopRevision.file })
    .from(loop)
    .innerJoin(system, eq(system.id, loop.systemId))
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .innerJoin(loopRevision, eq(loopRevision.id, row.revisionId))
    .where(eq(loop.id, row.loopId));
  if (!of) throw notFound('system');
  const record = buildRecord({
    procedure: row.procedure,
    events,
    system: { name: of.system, owner: of.owner },
    loop: { name: of.loop, revision: of.number, file: loopOfRun(of.file, row.procedure) },
    startedAt: row.startedAt.toISOString(),
    filledOn: on,
  });
  await scope.insert(runRecord).values({ workshopId: account.workshopId, runId: row.id, record, createdAt: now });
  await scope.update(run).set({ state: 'signed-off', signedOffAt: now }).where(eq(run.id, row.id));
  await scope
    .update(job)
    .set({ state: 'done', doneOn: on, note: state.signedOff?.text ?? '' })
    .where(eq(job.id, jobId));
  await keepUnitContents(scope, { workshopId: account.workshopId, loopId: row.loopId, runId: row.id, seq: events.length }, of.file);
  await pushNotice(scope, account.workshopId, { kind: 'benches' });
  if (row.benchId !== null) await moveHands(scope, account.workshopId, row.benchId, { do: 'leave' });
  return { runId: row.id, state: 'signed-off', serviceDueOn: null, settlingDueOn: null };
}
