import { asc, eq } from 'drizzle-orm';
import { pouredMl, replay, timerFace } from '../../core/commissioning/state.js';
import { addDays } from '../../core/units/calendar.js';
import { bench } from '../accounts/tables.js';
import { loadEvents } from '../commissioning/runs.js';
import { run } from '../commissioning/tables.js';
import type { Ask } from '../http/context.js';
import type { Routes } from '../http/routes.js';
import { loop, loopRevision } from '../loops/tables.js';
import { systemLines } from '../systems/systems.js';
import { customer, system } from '../systems/tables.js';
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
      overdue: lines.filter(({ attention }) => attention === 'overdue'),
      coming: lines.filter(
        ({ attention, nextDueOn }) => attention !== 'overdue' && attention !== 'retired' && nextDueOn !== null && nextDueOn <= horizon,
      ),
      count: lines.length,
    };
  });
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
    const nowMs = clock.now().getTime();
    result.push({
      id: row.run.id,
      benchId: row.run.benchId,
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
      timers: Object.entries(state.timers)
        .filter(([, timer]) => timer.step === state.current && timer.stoppedAt === null)
        .map(([id, timer]) => ({
          id,
          label: procedure.steps.flatMap(({ timers }) => timers).find((each) => each.id === id)?.label ?? id,
          startedAt: timer.startedAt,
          seconds: timer.seconds,
          finished: timerFace(timer, nowMs).finished,
        })),
    });
  }
  return result;
}
