import { and, eq, sql } from 'drizzle-orm';
import { FILL_CAUSE_KEYS, type ConfirmedFillCauses } from '../../../core/bench/fill-troubles/causes.js';
import {
  LEAK_CAUSE_KEYS,
  leakPlaceOf,
  type ConfirmedByPlace,
  type LeakCause,
  type LeakPlace,
} from '../../../core/bench/leak-finding/causes.js';
import type { Scope } from '../../base/database/client.js';
import { isReal, run, runEvent } from '../../base/database/tables/runs.js';
import type { Routes } from '../../base/http/routes.js';

/** What this workshop found behind its leaks and its troubles of filling: it moves the ranking. */
export function leakFindingRoutes(routes: Routes): void {
  routes.get<{ confirmed: ConfirmedByPlace; fills: ConfirmedFillCauses }>('/leak-causes', async ({ scope }) => ({
    confirmed: await leaksIn(scope),
    fills: await fillsIn(scope),
  }));
}

/** entries that were taken back and practice left out */
const counts = sql`not exists (
  select 1 from run_event as taken where taken.run_id = run_event.run_id and taken.body ->> 'type' = 'withdrawn' and taken.body ->> 'event' = run_event.id::text)`;

/** How often each cause of a leak was found at each kind of place. */
async function leaksIn(scope: Scope): Promise<ConfirmedByPlace> {
  const rows = await scope
    .select({
      cause: sql<string>`run_event.body ->> 'cause'`,
      // what the place is in the loop that the run was led with; a tube is none of its components
      kind: sql<
        string | null
      >`(select part ->> 'kind' from run_event as leak, jsonb_array_elements(${run.procedure} -> 'twin' -> 'loop' -> 'components') as part
        where leak.run_id = run_event.run_id and leak.id::text = run_event.body ->> 'leak' and part ->> 'id' = split_part(leak.body ->> 'at', '#', 1) limit 1)`,
      at: sql<
        string | null
      >`(select leak.body ->> 'at' from run_event as leak where leak.run_id = run_event.run_id and leak.id::text = run_event.body ->> 'leak')`,
    })
    .from(runEvent)
    .innerJoin(run, and(eq(run.id, runEvent.runId), isReal))
    .where(sql`run_event.body ->> 'type' = 'leak-mended' and ${counts}`);
  const confirmed: Partial<Record<LeakPlace, Partial<Record<LeakCause, number>>>> = {};
  for (const { cause, kind, at: where } of rows) {
    if (!(LEAK_CAUSE_KEYS as readonly string[]).includes(cause)) continue;
    const at = (confirmed[leakPlaceOf(where ?? '', kind)] ??= {});
    at[cause as LeakCause] = (at[cause as LeakCause] ?? 0) + 1;
  }
  return confirmed;
}

/** How often each cause was found behind a trouble of filling. */
async function fillsIn(scope: Scope): Promise<ConfirmedFillCauses> {
  const rows = await scope
    .select({ cause: sql<string>`body ->> 'cause'`, count: sql<number>`count(*)::int` })
    .from(runEvent)
    .innerJoin(run, and(eq(run.id, runEvent.runId), isReal))
    .where(sql`body ->> 'type' = 'fill-trouble-solved' and ${counts}`)
    .groupBy(sql`body ->> 'cause'`);
  return Object.fromEntries(
    rows.filter(({ cause }) => (FILL_CAUSE_KEYS as readonly string[]).includes(cause)).map(({ cause, count }) => [cause, count]),
  );
}
