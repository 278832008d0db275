import { say } from '../../../core/base/words/say.js';
import { keepContents } from '../runs/contents.js';
import { openDates, type RunRow } from '../runs/openDates.js';
import { moveHands } from '../commands/commands.js';
import { insertEvent, refusedBy } from '../runs/append.js';
import { foldOf } from '../runs/folds.js';
import { leaveBench, retireSystem } from '../runs/runs.js';
import { buildRecord } from '../../../core/edge/records/record.js';
import type { SignOffInput } from '../../../core/bench/commissioning/schema.js';
import { eq } from 'drizzle-orm';
import { refuseEntry } from '../../../core/bench/runs/rules.js';
import type { RunState } from '../../../core/bench/runs/state.js';
import { dayIn } from '../../../core/base/units/calendar.js';
import { keepFitted } from '../../workshop/lots/lots.js';
import { exchangeWords } from '../../../core/edge/words/exchange.js';
import { restartPaste } from '../../workshop/due-dates/paste.js';
import { closeService } from '../services/close.js';
import { pastedIn } from './pasted.js';
import { learnKit } from '../runs/kitLearned.js';
import { keepRings } from './rings.js';
import { signOffUnit } from './unit.js';
import { keepConnectorsOfRun } from './connectors.js';
import { tellOthers } from '../services/tell.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import { pushNotice } from '../../base/push/notices.js';
import { withOwnFill, type TaughtFill } from '../../../core/physics/learning/ownLoop.js';
import { taughtFill } from '../../../core/bench/commissioning/taughtFill.js';
import { addRevision } from '../../machine/loops/revisions.js';
import { keepReport } from '../../workshop/papers/report.js';
import { loop, loopRevision } from '../../base/database/tables/loops.js';
import { serviceJob } from '../../base/database/tables/jobs.js';
import { owner, job, system } from '../../base/database/tables/machines.js';
import type { Scope } from '../../base/database/client.js';
import type { Intake } from '../../../core/workshop/jobs/schema.js';
import { baseline, reading, run, runRecord } from '../../base/database/tables/runs.js';

/**
 * Closes a run. Stages, all in one transaction: the entry joins the log · the loop becomes "as built" · fill,
 * readings and baselines become rows · the record is written · the dates open · the machine leaves the bench.
 */
export async function signOff(ask: Ask, input: SignOffInput) {
  const { scope, account, clock, request } = ask;
  const runId = idFrom(request, 'id', 'run');
  const [row] = await scope.select().from(run).where(eq(run.id, runId)).for('update');
  if (!row) throw notFound('run');
  const fold = await foldOf(scope, runId);
  if (fold.find(input.id)) return { runId, state: row.state };
  if (row.state !== 'active') throw new DomainError('refused', say('This run is already closed.'));
  if (row.jobId === null) throw new DomainError('refused', say('A practice run is ended with its debrief, not signed off.'));
  const { jobId } = row;
  const now = clock.now();
  const body = { type: 'signed-off', remark: input.remark } as const;
  const refusal = refuseEntry(row.procedure, fold.state, fold.events, body, now.getTime());
  if (refusal) throw refusedBy(row.procedure, refusal);

  const seq = fold.events.length + 1;
  const event = await insertEvent(ask, { id: input.id, runId, seq, at: now, body });
  const { state, events } = fold.push(event);
  if (row.procedure.unit) return signOffUnit(ask, { row, jobId, state, events });
  await keepContents(scope, { ...row, workshopId: account.workshopId, runId, seq }, state.contents);
  const taught = taughtFill(row.procedure, state);
  const asBuilt = await markAsBuilt(ask, row, taught, exchangeWords(row.procedure, state));
  const filledOn = dayIn(account.timeZone, new Date(state.pours.at(-1)?.at ?? now.toISOString()));
  const [names] = await scope
    .select({ systemId: system.id, systemName: system.name, owner: owner.name, loopName: loop.name })
    .from(loop)
    .innerJoin(system, eq(system.id, loop.systemId))
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .where(eq(loop.id, row.loopId));
  if (!names) throw notFound('system');
  await writeMeasurements(ask, row, state);
  const record = buildRecord({
    procedure: row.procedure,
    events,
    system: { name: names.systemName, owner: names.owner },
    loop: { name: names.loopName, revision: asBuilt.number, file: asBuilt.file },
    startedAt: row.startedAt.toISOString(),
    filledOn,
    intake: await intakeOf(scope, jobId),
  });
  await scope.insert(runRecord).values({ workshopId: account.workshopId, runId, record, createdAt: now });
  await scope.update(run).set({ state: 'signed-off', signedOffAt: now }).where(eq(run.id, runId));
  await scope
    .update(job)
    .set({ state: 'done', doneOn: dayIn(account.timeZone, now), note: input.remark })
    .where(eq(job.id, jobId));
  await keepRings(scope, row.loopId, asBuilt.file, state, filledOn);
  const facts = { row, jobId, state, systemId: names.systemId, revisionId: asBuilt.id, filledOn };
  const dates = row.procedure.service ? await closeService(ask, facts) : await openDates(ask, facts, { taught });
  await restartPaste(scope, {
    workshopId: account.workshopId,
    ...{ systemId: names.systemId, loopId: row.loopId, on: filledOn, personId: account.personId, at: now },
    ...pastedIn(state, row.procedure),
  });
  await learnKit(scope, account.workshopId, row.procedure.service?.kind ?? 'commissioning', state, dayIn(account.timeZone, now));
  await keepConnectorsOfRun(scope, names.systemId, asBuilt.file, row.procedure, state);
  if (!row.procedure.service) {
    await keepFitted(scope, state.service, {
      workshopId: account.workshopId,
      systemId: names.systemId,
      loopId: row.loopId,
      jobId,
      on: filledOn,
      at: now,
    });
    await tellOthers(ask, facts);
  }
  await keepReport(ask, runId);
  await leaveBench(scope, row.loopId);
  await pushNotice(scope, account.workshopId, { kind: 'benches' });
  await pushNotice(scope, account.workshopId, { kind: 'dates' });
  if ('retires' in dates && dates.retires) await retireSystem(scope, names.systemId);
  if (row.benchId !== null) await moveHands(scope, account.workshopId, row.benchId, { do: 'leave' });
  return { runId, state: 'signed-off', ...dates };
}

/**
 * What was commissioned is what was built: a planned revision gets its "as built" twin, with what its first fill told of its
 * parts. A part that was exchanged makes a revision of its own, in a service as well.
 */
async function markAsBuilt(
  { scope, account, clock }: Ask,
  row: RunRow,
  taught: TaughtFill | null,
  exchanged: string,
): Promise<typeof loopRevision.$inferSelect> {
  const [own] = await scope.select().from(loopRevision).where(eq(loopRevision.id, row.revisionId));
  if (!own) throw notFound('loop revision');
  const isCommissioned = own.kind === 'planned' && !row.procedure.service;
  if (!isCommissioned && exchanged === '') return own;
  const file = taught && isCommissioned ? withOwnFill(own.file, taught) : own.file;
  return addRevision(scope, {
    workshopId: account.workshopId,
    loopId: row.loopId,
    kind: 'as-built',
    reason: [
      ...(isCommissioned ? ['as commissioned'] : []),
      ...(exchanged ? [exchanged] : []),
      ...(taught && file !== own.file ? [`volumes learned from ${Math.round(taught.volumeMl)} mL inside`] : []),
    ].join('; '),
    personId: account.personId,
    file,
    at: clock.now(),
  });
}

/** Measured values as rows. They belong to the revision the run was led on. */
async function writeMeasurements({ scope, account }: Ask, row: RunRow, state: RunState): Promise<void> {
  const own = { workshopId: account.workshopId, runId: row.id, revisionId: row.revisionId };
  const readings = [
    ...state.dryReadings.flatMap(({ value, ...from }) => [
      { ...from, quantity: 'gauge pressure', value: value.gaugeKpa, unit: 'kPa' },
      { ...from, quantity: 'room temperature', value: value.tempC, unit: '°C' },
    ]),
    ...state.pours.map((pour) => ({ ...pour, quantity: 'poured volume', unit: 'mL' })),
    ...state.bleedCycles.flatMap(({ value, ...from }) => [
      { ...from, quantity: 'level, pump running', value: value.runningMm, unit: 'mm' },
      { ...from, quantity: 'level, pump stopped', value: value.stoppedMm, unit: 'mm' },
    ]),
  ];
  if (readings.length > 0)
    await scope.insert(reading).values(readings.map(({ at, ...rest }) => ({ ...own, ...rest, takenAt: new Date(at) })));
  const read = [
    ...state.befores.map((each) => ({ ...each, before: true })),
    ...state.baselines.map((each) => ({ ...each, before: false })),
  ];
  if (read.length > 0)
    await scope.insert(baseline).values(read.map(({ at, value, before }) => ({ ...own, reading: value, takenAt: new Date(at), before })));
}

/** What was said and seen when a machine came in; null in a build. */
async function intakeOf(scope: Scope, jobId: string): Promise<Intake | null> {
  const [own] = await scope.select({ intake: serviceJob.intake }).from(serviceJob).where(eq(serviceJob.jobId, jobId));
  return own?.intake ?? null;
}
