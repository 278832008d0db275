import { and, eq, sql } from 'drizzle-orm';
import { FILL_CAUSE_KEYS, type ConfirmedFillCauses } from '../../../core/bench/fill-troubles/causes.js';
import { LEAK_CAUSE_KEYS, type ConfirmedCauses } from '../../../core/bench/leak-finding/causes.js';
import type { Scope } from '../../base/database/client.js';
import { isReal, run, runEvent } from '../../base/database/tables/runs.js';
import type { Routes } from '../../base/http/routes.js';

/** What this workshop found behind its leaks and its troubles of filling: it moves the ranking. */
export function leakFindingRoutes(routes: Routes): void {
  routes.get<{ confirmed: ConfirmedCauses; fills: ConfirmedFillCauses }>('/leak-causes', async ({ scope }) => ({
    confirmed: await confirmedIn(scope, 'leak-mended', LEAK_CAUSE_KEYS),
    fills: await confirmedIn(scope, 'fill-trouble-solved', FILL_CAUSE_KEYS),
  }));
}

/** How often each cause was found, entries that were taken back and practice left out. */
async function confirmedIn<Cause extends string>(
  scope: Scope,
  type: string,
  known: readonly Cause[],
): Promise<Partial<Record<Cause, number>>> {
  const rows = await scope
    .select({ cause: sql<string>`body ->> 'cause'`, count: sql<number>`count(*)::int` })
    .from(runEvent)
    .innerJoin(run, and(eq(run.id, runEvent.runId), isReal))
    .where(
      sql`body ->> 'type' = ${type} and not exists (
        select 1 from run_event as taken where taken.run_id = run_event.run_id and taken.body ->> 'type' = 'withdrawn' and taken.body ->> 'event' = run_event.id::text)`,
    )
    .groupBy(sql`body ->> 'cause'`);
  const confirmed: Partial<Record<Cause, number>> = {};
  for (const { cause, count } of rows) if ((known as readonly string[]).includes(cause)) confirmed[cause as Cause] = count;
  return confirmed;
}
