import { and, eq, sql } from 'drizzle-orm';
import { LEAK_CAUSE_KEYS, type ConfirmedCauses, type LeakCause } from '../../../core/bench/leak-finding/causes.js';
import { isReal, run, runEvent } from '../../base/database/tables/runs.js';
import type { Routes } from '../../base/http/routes.js';

/** How often this workshop confirmed each cause of a leak, from the logs of its runs; what was taken back, and practice, does not count. */
export function leakFindingRoutes(routes: Routes): void {
  routes.get<{ confirmed: ConfirmedCauses }>('/leak-causes', async ({ scope }) => {
    const rows = await scope
      .select({ cause: sql<string>`body ->> 'cause'`, count: sql<number>`count(*)::int` })
      .from(runEvent)
      .innerJoin(run, and(eq(run.id, runEvent.runId), isReal))
      .where(
        sql`body ->> 'type' = 'leak-mended' and not exists (
          select 1 from run_event as taken where taken.run_id = run_event.run_id and taken.body ->> 'type' = 'withdrawn' and taken.body ->> 'event' = run_event.id::text)`,
      )
      .groupBy(sql`body ->> 'cause'`);
    const confirmed: Partial<Record<LeakCause, number>> = {};
    for (const { cause, count } of rows) if ((LEAK_CAUSE_KEYS as string[]).includes(cause)) confirmed[cause as LeakCause] = count;
    return { confirmed: confirmed satisfies ConfirmedCauses };
  });
}
