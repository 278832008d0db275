import { say } from '../../../core/base/words/say.js';
import type { BenchRun, LoopOnBench } from '../../../core/bench/benches/answers.js';
import { asBookedKind } from '../../../core/workshop/job-kinds/kinds.js';
import { aheadOf } from './practised.js';
import { and, asc, eq, gte, inArray, sql } from 'drizzle-orm';
import { judgeDryTest } from '../../../core/bench/runs/dryTest.js';
import { dryingLeftMs } from '../../../core/bench/runs/locks.js';
import { stepOf, type Procedure } from '../../../core/bench/runs/procedure.js';
import { sharesInside } from '../../../core/bench/runs/standing.js';
import { currentKind, timerFace, type RunState } from '../../../core/bench/runs/state.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import { loop, loopRevision } from '../../base/database/tables/loops.js';
import { owner, job, system } from '../../base/database/tables/machines.js';
import { bench, isRealBench } from '../../base/database/tables/people.js';
import { slot } from '../../base/database/tables/planning.js';
import { isOfLoop, run } from '../../base/database/tables/runs.js';
import type { LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import type { Scope } from '../../base/database/client.js';
import type { Ask } from '../../base/http/context.js';
import { notFound } from '../../base/http/errors.js';
import { foldOf } from './folds.js';

/** The small answer that every screen asks for: what stands on which bench, its step and clocks, and what comes next. */
export async function benchesNow(ask: Ask) {
  return {
    now: ask.clock.now().toISOString(),
    benches: await ask.scope.select({ id: bench.id, name: bench.name }).from(bench).where(isRealBench).orderBy(asc(bench.position)),
    runs: await activeRuns(ask),
    next: await nextSlots(ask),
  };
}

/** Drawings of what stands on the benches; a run's revision does not change under it. */
export async function loopsOnBenches({ scope }: Pick<Ask, 'scope'>): Promise<LoopOnBench[]> {
  const rows = await scope
    .select({
      runId: run.id,
      file: loopRevision.file,
      unit: sql<LoopFile | null>`case when ${isOfLoop} then null else ${run.procedure} #> '{twin,loop}' end`,
    })
    .from(run)
    .innerJoin(loopRevision, eq(loopRevision.id, run.revisionId))
    .where(eq(run.state, 'active'));
  return rows.map(({ runId, file, unit }) => ({ runId, file: unit ?? file }));
}

/** What the plan puts on each bench next. */
async function nextSlots({ scope, clock }: Pick<Ask, 'scope' | 'clock'>) {
  const rows = await scope
    .select({
      benchId: slot.benchId,
      startsAt: slot.startsAt,
      jobId: job.id,
      kind: job.kind,
      systemName: system.name,
      ownerName: owner.name,
      confirmed: slot.confirmed,
    })
    .from(slot)
    .innerJoin(job, eq(job.id, slot.jobId))
    .innerJoin(system, eq(system.id, job.systemId))
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .where(and(inArray(job.state, ['booked', 'waiting']), gte(slot.endsAt, clock.now())))
    .orderBy(asc(slot.startsAt));
  const seen = new Set<string>();
  return rows
    .filter(({ benchId }) => !seen.has(benchId) && seen.add(benchId))
    .map((row) => ({ ...row, kind: asBookedKind(row.kind), startsAt: row.startsAt.toISOString() }));
}

type BenchTimer = BenchRun['timers'][number];

/** Clocks that no hand started: the air test's likely verdict, and splashed electronics that dry. */
function derivedTimers(procedure: Procedure, state: RunState, nowMs: number): BenchTimer[] {
  const dry = currentKind(state) === 'dry-test' ? judgeDryTest(procedure, state) : null;
  const lastReading = state.dryReadings.at(-1)?.at;
  const dryingMs = dryingLeftMs(state, nowMs) ?? 0;
  return [
    ...(dry && lastReading !== undefined && dry.verdict === 'not-yet'
      ? [
          {
            id: 'air-test',
            label: say('Air test still to hold'),
            startedAt: lastReading,
            seconds: (dry.moreMinutes ?? 0) * 60,
            finished: false,
          },
        ]
      : []),
    ...(dryingMs > 0
      ? [
          {
            id: 'drying',
            label: say('Rinsed electronics dry'),
            startedAt: new Date(nowMs).toISOString(),
            seconds: dryingMs / 1000,
            finished: false,
          },
        ]
      : []),
  ];
}

async function drawingOf(scope: Scope, revisionId: string): Promise<LoopFile> {
  const [row] = await scope.select({ file: loopRevision.file }).from(loopRevision).where(eq(loopRevision.id, revisionId));
  if (!row) throw notFound('loop revision');
  return row.file;
}

/** Runs in progress: what stands where, which step, which clock. */
async function activeRuns({ scope, clock }: Ask) {
  const rows = await scope
    .select({
      run,
      loopName: loop.name,
      systemId: system.id,
      systemName: system.name,
      ownerName: owner.name,
      colour: coolantProduct.colour,
    })
    .from(run)
    .innerJoin(loop, eq(loop.id, run.loopId))
    .innerJoin(system, eq(system.id, loop.systemId))
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .leftJoin(coolantProduct, eq(coolantProduct.id, loop.coolantProductId))
    .where(eq(run.state, 'active'))
    .orderBy(asc(run.startedAt));
  const result = [];
  for (const row of rows) {
    const aheadMs = row.run.jobId === null ? await aheadOf(scope, row.run.id) : 0;
    // a run from before it carried its loop
    const file = row.run.procedure.twin?.loop ?? (await drawingOf(scope, row.run.revisionId));
    // the fold's own steps: their twin is made once, not at every look
    const { state, procedure } = await foldOf(scope, row.run.id);
    const step = stepOf(procedure, state.current);
    const nowMs = clock.now().getTime() + aheadMs;
    result.push({
      id: row.run.id,
      benchId: row.run.benchId,
      practice: row.run.jobId === null,
      waits: row.run.waits,
      aheadMs,
      systemId: row.systemId,
      systemName: row.systemName,
      ownerName: row.ownerName,
      loopName: row.loopName,
      colour: row.colour,
      inside: sharesInside(procedure, file, state, nowMs),
      startedAt: row.run.startedAt.toISOString(),
      stepTitle: step?.title ?? say('Sign off'),
      lead: step?.lead ?? '',
      stepNumber: procedure.steps.findIndex(({ id }) => id === state.current) + 1,
      steps: procedure.steps.length,
      timers: [
        ...derivedTimers(procedure, state, nowMs),
        ...Object.entries(state.timers)
          .filter(([, timer]) => timer.step === state.current && timer.stoppedAt === null)
          .map(([id, timer]) => ({
            id,
            label: procedure.steps.flatMap(({ timers }) => timers).find((each) => each.id === id)?.label ?? id,
            startedAt: timer.startedAt,
            seconds: timer.seconds,
            finished: timerFace(timer, nowMs).finished,
          })),
      ],
    });
  }
  return result;
}
