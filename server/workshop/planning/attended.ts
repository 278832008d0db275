import { sql } from 'drizzle-orm';
import type { Scope } from '../../base/database/client.js';

/**
 * min between two entries of hands that still count as work: whoever enters nothing for longer has left the bench. Cutting and bending
 * takes so long now and then; a night, a day's test and a lunch do not (workshop practice).
 */
const AWAY_AFTER_MINUTES = 30;

/** Minutes that hands were at runs, by their entries; those of instruments are nobody's. Runs without entries are left out. */
export async function attendedMinutes(scope: Scope, runIds: readonly string[]): Promise<ReadonlyMap<string, number>> {
  if (runIds.length === 0) return new Map();
  const ids = sql.join(
    runIds.map((id) => sql`${id}::uuid`),
    sql`, `,
  );
  const { rows } = await scope.execute<{ run_id: string; minutes: number }>(sql`
    select run_id, sum(least(extract(epoch from happened_at - before) / 60, ${AWAY_AFTER_MINUTES}))::float8 as minutes
    from (
      select e.run_id, e.happened_at, coalesce(lag(e.happened_at) over (partition by e.run_id order by e.happened_at, e.seq), r.started_at) as before
      from run_event e join run r on r.id = e.run_id
      where e.run_id in (${ids}) and coalesce(e.body ->> 'source', 'hand') = 'hand') gaps
    where happened_at > before
    group by run_id`);
  return new Map(rows.map(({ run_id: id, minutes }) => [id, minutes]));
}
