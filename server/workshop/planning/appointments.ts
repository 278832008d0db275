import { eq, inArray } from 'drizzle-orm';
import type { Appointment } from '../../../core/workshop/jobs/answers.js';
import { bench } from '../../base/database/tables/people.js';
import { slot } from '../../base/database/tables/planning.js';
import type { Scope } from '../../base/database/client.js';

/** When jobs have their bench, by job: the one place that every page and paper reads it from. */
export async function appointmentsOf(scope: Scope, jobIds: readonly string[]): Promise<ReadonlyMap<string, Appointment>> {
  if (jobIds.length === 0) return new Map();
  const rows = await scope
    .select({ jobId: slot.jobId, startsAt: slot.startsAt, endsAt: slot.endsAt, confirmed: slot.confirmed, bench: bench.name })
    .from(slot)
    .innerJoin(bench, eq(bench.id, slot.benchId))
    .where(inArray(slot.jobId, [...jobIds]));
  return new Map(
    rows.map(({ jobId, startsAt, endsAt, ...each }) => [jobId, { from: startsAt.toISOString(), to: endsAt.toISOString(), ...each }]),
  );
}
