import { and, asc, eq, gte, inArray } from 'drizzle-orm';
import { dryingLeftMs } from '../../core/commissioning/interlocks.js';
import type { Procedure } from '../../core/commissioning/procedure.js';
import { judgeDryTest } from '../../core/commissioning/rules.js';
import { pouredMl, replay, timerFace, type RunState } from '../../core/commissioning/state.js';
import { addDays } from '../../core/units/calendar.js';
import { bench } from '../accounts/tables.js';
import { loadEvents } from '../commissioning/append.js';
import { aheadOf } from '../practice/clock.js';
import { run } from '../commissioning/tables.js';
import type { Ask } from '../http/context.js';
import type { Routes } from '../http/routes.js';
import { loop, loopRevision } from '../loops/tables.js';
import { systemLines } from '../systems/systems.js';
import { slot } from '../planning/tables.js';
import { customer, job, system } from '../systems/tables.js';
import { coolantProduct } from '../coolants/tables.js';

/** Days ahead that the Today screen looks. */
const HORIZON_DAYS = 45;

export function todayRoutes(routes: Routes): void {
  routes.get('/today', async (ask) => {
    const lines = await systemLines(ask);
    const horizon = addDays(ask.today, HORIZON_DAYS);
    return {
      today: ask.today,
      now: ask.clock.now().toISOString(),
      benches: await ask.scope.select({ id: bench.id, name: bench.name }).from(bench).orderBy(asc(bench.position)),
      runs: await activeRuns(ask),
      next: await nextSlots(ask),
      overdue: lines.filter(({ attention }) => attention === 'overdue'),
      coming: lines.filter(
        ({ attention, nextDueOn }) => attention !== 'overdue' && attention !== 'retired' && nextDueOn !== null && nextDueOn <= horizon,
      ),
      count: lines.length,
    };
  });
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
      customerName: customer.name,
      confirmed: slot.confirmed,
    })
    .from(slot)
    .innerJoin(job, eq(job.id, slot.jobId))
    .innerJoin(system, eq(system.id, job.systemId))
    .innerJoin(customer, eq(customer.id, system.customerId))
    .where(and(inArray(job.state, ['booked', 'waiting']), gte(slot.endsAt, clock.now())))
    .orderBy(asc(slot.startsAt));
  const seen = new Set<string>();
  return rows
    .filter(({ benchId }) => !seen.has(benchId) && seen.add(benchId))
    .map((row) => ({ ...row, startsAt: row.startsAt.toISOString() }));
}

interface BenchTimer {
  readonly id: string;
  readonly label: string;
  readonly startedAt: string;
  readonly seconds: number;
  readonly finished: boolean;
}

/** Clocks that no hand started: the air test's likely verdict, and splashed electronics that dry. */
function derivedTimers(procedure: Procedure, state: RunState, nowMs: number): BenchTimer[] {
  const dry = state.current === 'dry' ? judgeDryTest(procedure, state) : null;
  const lastReading = state.dryReadings.at(-1)?.at;
  const dryingMs = dryingLeftMs(state, nowMs) ?? 0;
  return [
    ...(dry && lastReading !== undefined && dry.verdict === 'not-yet'
      ? [
          {
            id: 'air-test',
            label: 'Air test still to hold',
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
            label: 'Rinsed electronics dry',
            startedAt: new Date(nowMs).toISOString(),
            seconds: dryingMs / 1000,
            finished: false,
          },
        ]
      : []),
  ];
}

/** Runs in progress: what stands where, which step, which clock. */
async function activeRuns({ scope, clock }: Ask) {
  const rows = await scope
    .select({
      run,
      loopName: loop.name,
      systemId: system.id,
      systemName: system.name,
      customerName: customer.name,
      colour: coolantProduct.colour,
      file: loopRevision.file,
    })
    .from(run)
    .innerJoin(loop, eq(loop.id, run.loopId))
    .innerJoin(system, eq(system.id, loop.systemId))
    .innerJoin(customer, eq(customer.id, system.customerId))
    .innerJoin(loopRevision, eq(loopRevision.id, run.revisionId))
    .leftJoin(coolantProduct, eq(coolantProduct.id, loop.coolantProductId))
    .where(eq(run.state, 'active'))
    .orderBy(asc(run.startedAt));
  const result = [];
  for (const row of rows) {
    const { procedure } = row.run;
    const state = replay(procedure, await loadEvents(scope, row.run.id));
    const step = procedure.steps.find(({ id }) => id === state.current);
    const aheadMs = row.run.jobId === null ? await aheadOf(scope, row.run.id) : 0;
    const nowMs = clock.now().getTime() + aheadMs;
    result.push({
      id: row.run.id,
      benchId: row.run.benchId,
      practice: row.run.jobId === null,
      aheadMs,
      systemId: row.systemId,
      systemName: row.systemName,
      customerName: row.customerName,
      loopName: row.loopName,
      colour: row.colour,
      file: row.file,
      pouredMl: pouredMl(state),
      full: state.steps.some(({ id, status }) => id === 'fill' && status === 'done'),
      startedAt: row.run.startedAt.toISOString(),
      stepTitle: step?.title ?? 'Sign off',
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
