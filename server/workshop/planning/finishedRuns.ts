import { and, desc, eq, inArray } from 'drizzle-orm';
import { hasRigidTube } from '../../../core/bench/inspection/items.js';
import { usualHours } from '../../../core/workshop/jobs/usualHours.js';
import type { FinishedRun } from '../../../core/workshop/planning/jobSteps.js';
import type { Scope } from '../../base/database/client.js';
import { job } from '../../base/database/tables/machines.js';
import { isOfLoop, run } from '../../base/database/tables/runs.js';
import { attendedMinutes } from './attended.js';

/** runs that durations are learned from: the newest */
const LEARNED_FROM = 300;
/** runs that are remembered, of every workshop: some hundred bytes each */
const MOST_REMEMBERED = 20_000;

/** What a finished run took; null: it teaches nothing. Its log and procedure change no more, so neither does this. */
const remembered = new Map<string, FinishedRun | null>();

/** How long finished services and builds took with somebody at them: nights and the pump's own hours are nobody's. */
export async function finishedRuns({ scope }: { readonly scope: Scope }): Promise<FinishedRun[]> {
  const ids = (
    await scope
      .select({ id: run.id })
      .from(run)
      .innerJoin(job, eq(job.id, run.jobId))
      .where(and(eq(run.state, 'signed-off'), isOfLoop))
      .orderBy(desc(run.signedOffAt))
      .limit(LEARNED_FROM)
  ).map(({ id }) => id);
  const missing = ids.filter((id) => !remembered.has(id));
  if (remembered.size + missing.length > MOST_REMEMBERED) remembered.clear();
  await look(scope, remembered.size === 0 ? ids : missing);
  return ids.flatMap((id) => remembered.get(id) ?? []);
}

/** Reads procedures and logs of runs that nobody asked about before. */
async function look(scope: Scope, ids: string[]): Promise<void> {
  if (ids.length === 0) return;
  const attended = await attendedMinutes(scope, ids);
  const rows = await scope
    .select({ id: run.id, procedure: run.procedure, kind: job.kind })
    .from(run)
    .innerJoin(job, eq(job.id, run.jobId))
    .where(inArray(run.id, ids));
  for (const { id, procedure, kind: booked } of rows) {
    const { service, twin } = procedure;
    const minutes = attended.get(id) ?? null;
    const rigid = service?.rigid ?? (twin ? hasRigidTube(twin.loop) : null);
    const kind = service?.kind ?? (booked === 'into-loop' ? booked : 'commissioning');
    const usual = twin ? { usualMinutes: usualHours(kind, twin.loop, null, service?.beside) * 60 } : {};
    remembered.set(id, minutes === null || rigid === null ? null : { kind, rigid, attendedMinutes: minutes, ...usual });
  }
}
