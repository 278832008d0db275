import { sql } from 'drizzle-orm';
import type { Redated } from '../../../core/workshop/due-dates/redate.js';
import { PUSH_CHANNEL } from '../../base/push/notices.js';
import type { Scope } from '../../base/database/client.js';

/** Tells whoever looks that dates moved. Work over all workshops, such as writing the demo, has nobody to tell. */
export const tellDates = (scope: Scope): Promise<unknown> =>
  scope.execute(
    sql`select pg_notify(${PUSH_CHANNEL}, json_build_object('workshopId', current_setting('lavacrum.workshop'), 'kind', 'dates')::text)
      where nullif(current_setting('lavacrum.workshop', true), '') is not null`,
  );

/** rows of one update statement; as one document each, since thousands of parameters cost more than the rows */
export const WRITTEN_AT_ONCE = 2000;

/** Dates computed anew, many a statement: ten thousand machines must not take ten thousand round trips. Whoever moves dates tells so, once. */
export async function writeDates(scope: Scope, moved: readonly Omit<Redated, 'before'>[]): Promise<void> {
  for (let from = 0; from < moved.length; from += WRITTEN_AT_ONCE) {
    const rows = moved
      .slice(from, from + WRITTEN_AT_ONCE)
      .map(({ id, dueOn, reason, estimated, clocks }) => ({ id, due_on: dueOn, reason, estimated, clocks }));
    await scope.execute(sql`
      update due_item set due_on = moved.due_on, reason = moved.reason, estimated = moved.estimated, clocks = moved.clocks, version = version + 1
      from jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) as moved (id uuid, due_on date, reason jsonb, estimated boolean, clocks jsonb)
      where due_item.id = moved.id`);
  }
}
