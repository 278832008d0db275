import { say } from '../../../core/base/words/say.js';
import { hasOnline, moveHands } from '../commands/commands.js';
import { aheadOf } from '../runs/practised.js';
import type { RunCreate } from '../../../core/bench/commissioning/schema.js';
import { randomInt } from 'node:crypto';
import { and, eq, isNull, sql } from 'drizzle-orm';
import { debrief } from '../../../core/bench/practice/debrief.js';
import type { SimulateInput } from '../../../core/bench/practice/schema.js';
import type { LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import { cannotSimulate } from '../../../core/bench/simulated-bench/bench.js';
import { liquidOf, WATER } from '../../../core/machine/liquids/fluids.js';
import { loopOfRun } from '../../../core/bench/runs/procedure.js';
import { foldOf, loadEvents } from '../runs/folds.js';
import { bench } from '../../base/database/tables/people.js';
import { run } from '../../base/database/tables/runs.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import type { Scope } from '../../base/database/client.js';
import type { Ask } from '../../base/http/context.js';
import { pushNotice } from '../../base/push/notices.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import { renewAccess } from '../instruments/access.js';
import { loop, loopRevision } from '../../base/database/tables/loops.js';
import { practice } from '../../base/database/tables/practice.js';

/** benches of real machines come first wherever benches are listed by position */
const AFTER_ALL = 1000;

/** A table for a practice run: one that is free, else another one. No real bench is needed, and no real device is ever moved. */
export async function practiceTable({ scope, account, clock }: Ask): Promise<string> {
  // two that begin at once take two
  await scope.execute(sql`select pg_advisory_xact_lock(hashtext(${`practice ${account.workshopId}`}))`);
  const tables = await scope
    .select({ id: bench.id, name: bench.name, runId: run.id })
    .from(bench)
    .leftJoin(run, and(eq(run.benchId, bench.id), eq(run.state, 'active')))
    .where(eq(bench.forPractice, true));
  const free = tables.find(({ runId }) => runId === null);
  if (free) return free.id;
  // a bench may be called like that already
  const names = new Set((await scope.select({ name: bench.name }).from(bench)).map(({ name }) => name));
  let nth = tables.length + 1;
  while (names.has(`Practice table ${nth}`)) nth += 1;
  const [made] = await scope
    .insert(bench)
    .values({
      workshopId: account.workshopId,
      name: say('Practice table {nth}', { nth }),
      position: AFTER_ALL + tables.length,
      forPractice: true,
      createdAt: clock.now(),
    })
    .returning({ id: bench.id });
  return (made as { id: string }).id;
}

/** @throws DomainError where a simulated bench cannot play a loop */
export function demandSimulation(file: LoopFile): void {
  const why = cannotSimulate(file);
  if (why !== null) throw new DomainError('refused', say('This loop cannot be practised on: {why}.', { why }));
}

async function noRealDevices(scope: Scope, benchId: string): Promise<void> {
  const real = await hasOnline(scope, benchId, 'real');
  if (real) throw new DomainError('conflict', say('Real instruments are connected to this bench: a simulated one would speak over them.'));
}

/** The row beside a practice run, with the fault it hides. */
export async function notePractice(ask: Ask, runId: string, input: NonNullable<RunCreate['practice']>): Promise<void> {
  await ask.scope.insert(practice).values({
    workshopId: ask.account.workshopId,
    runId,
    scenario: input.scenario,
    seed: input.seed ?? randomInt(2_147_483_647),
    createdAt: ask.clock.now(),
  });
}

/**
 * Lets a simulated bench play the run that stands on a bench. Begun in the middle of a run, it first does again what
 * the log says. A practice run keeps its hidden fault.
 */
export async function simulateBench(ask: Ask, runId: string, input: SimulateInput): Promise<object> {
  const { scope, account, instruments } = ask;
  const [row] = await scope
    .select({ run, file: loopRevision.file, product: coolantProduct })
    .from(run)
    .innerJoin(loopRevision, eq(loopRevision.id, run.revisionId))
    .innerJoin(loop, eq(loop.id, run.loopId))
    .leftJoin(coolantProduct, eq(coolantProduct.id, loop.coolantProductId))
    .where(eq(run.id, runId));
  if (!row) throw notFound('run');
  if (row.run.state !== 'active') throw new DomainError('refused', say('This run is closed; nothing stands on the bench.'));
  const { benchId } = row.run;
  if (benchId === null) throw new DomainError('refused', say('This run stands on no bench; a simulated bench needs one.'));
  const { service } = row.run.procedure;
  // what stands inside a machine of somebody's is its own book's, and no bench made it up
  if (service && row.run.jobId !== null)
    throw new DomainError('refused', say('A machine that came for service is not simulated; services are practised at a practice table.'));
  const file = loopOfRun(row.file, row.run.procedure);
  const why = cannotSimulate(file);
  if (why !== null) throw new DomainError('refused', say('This loop cannot be simulated: {why}.', { why }));
  await noRealDevices(scope, benchId);
  const [practised] = await scope.select().from(practice).where(eq(practice.runId, runId));
  const access = await renewAccess(scope, account, benchId, true);
  instruments.simulate({
    ...(instruments.broker.embedded ? access : { name: '', secret: '' }),
    workshopId: account.workshopId,
    benchId,
    loop: file,
    coolant: row.run.procedure.unit ? WATER : liquidOf(row.product),
    scenario: (practised?.scenario as SimulateInput['scenario'] | undefined) ?? input.scenario,
    seed: practised?.seed ?? input.seed ?? randomInt(2_147_483_647),
    procedure: row.run.procedure,
    startedAt: row.run.startedAt.toISOString(),
    events: await loadEvents(scope, runId),
    aheadMs: practised?.aheadMs ?? 0,
  });
  return { benchId };
}

/** Sets a practice run's clock ahead: a day's wet test passes at once. */
export async function skipTime({ scope, account }: Ask, runId: string, seconds: number): Promise<object> {
  const [row] = await scope
    .select({ benchId: run.benchId })
    .from(run)
    .where(and(eq(run.id, runId), eq(run.state, 'active'), isNull(run.jobId)));
  if (!row || row.benchId === null)
    throw new DomainError('refused', say('Time passes by itself here; only a practice run’s clock can be set ahead.'));
  await scope
    .update(practice)
    .set({ aheadMs: sql`${practice.aheadMs} + ${Math.round(seconds * 1000)}` })
    .where(eq(practice.runId, runId));
  await moveHands(scope, account.workshopId, row.benchId, { do: 'skip', seconds });
  return { aheadMs: await aheadOf(scope, runId) };
}

/** Ends a practice run wherever it stands: what was hidden is told, and what hands did is gone through. */
export async function endPractice({ scope, account, clock }: Ask, runId: string) {
  const [row] = await scope.select().from(run).where(eq(run.id, runId)).for('update');
  const [practised] = row ? await scope.select().from(practice).where(eq(practice.runId, runId)) : [];
  if (!row || !practised) throw notFound('practice run');
  if (practised.debrief) return { runId, debrief: practised.debrief };
  if (!practised.report)
    throw new DomainError('refused', say('The simulated bench has said nothing yet; start it, do something, then end the practice.'));
  const { events, state } = await foldOf(scope, runId);
  const now = clock.now();
  const told = debrief({
    procedure: row.procedure,
    events,
    report: practised.report,
    startedAt: row.startedAt.toISOString(),
    endedAt: new Date(now.getTime() + practised.aheadMs).toISOString(),
  });
  const done = state.current === null || row.state !== 'active';
  await scope.update(practice).set({ debrief: told, endedAt: now }).where(eq(practice.runId, runId));
  await scope
    .update(run)
    .set(done ? { state: 'signed-off', signedOffAt: now } : { state: 'abandoned' })
    .where(eq(run.id, runId));
  if (row.benchId !== null) await moveHands(scope, account.workshopId, row.benchId, { do: 'leave' });
  await pushNotice(scope, account.workshopId, { kind: 'benches' });
  return { runId, debrief: told };
}
