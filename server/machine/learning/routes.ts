import type { LearnedAnswer } from '../../../core/physics/learning/answers.js';
import { verdictSchema, type VerdictInput } from '../../../core/physics/learning/schema.js';
import { and, eq, isNotNull, sql } from 'drizzle-orm';
import { learnCatalogue } from '../../../core/physics/learning/catalogueVolumes.js';
import { fill } from '../../base/database/tables/runs.js';
import { bodyAs, idFrom, type Ask } from '../../base/http/context.js';
import { notFound } from '../../base/http/errors.js';
import type { Routes } from '../../base/http/routes.js';
import { loop, loopRevision } from '../../base/database/tables/loops.js';
import { system } from '../../base/database/tables/machines.js';

/** A fill at a simulated bench says nothing about real parts. */
const measured = sql`not exists (select 1 from reading where reading.run_id = ${fill.runId} and reading.source = 'simulated')`;

/** What the workshop's own signed-off fills say about the catalogue's volumes: those that began dry and ended at a read level. */
export function learningRoutes(routes: Routes): void {
  routes.get<LearnedAnswer>('/learned-volumes', learned);
  routes.put<LearnedAnswer>('/fills/:id/verdict', async (ask) => {
    const { verdict } = bodyAs<VerdictInput>(ask.request, verdictSchema);
    const [row] = await ask.scope
      .update(fill)
      .set({ taughtVerdict: verdict })
      .where(and(eq(fill.id, idFrom(ask.request, 'id', 'fill')), isNotNull(fill.taughtMl)))
      .returning({ id: fill.id });
    if (!row) throw notFound('fill');
    return learned(ask);
  });
}

async function learned({ scope, account }: Ask): Promise<LearnedAnswer> {
  const rows = await scope
    .select({
      id: fill.id,
      file: loopRevision.file,
      taughtMl: fill.taughtMl,
      taughtSdMl: fill.taughtSdMl,
      verdict: fill.taughtVerdict,
      filledOn: fill.filledOn,
      runId: fill.runId,
      system: { id: system.id, name: system.name },
    })
    .from(fill)
    .innerJoin(loopRevision, eq(loopRevision.id, fill.revisionId))
    .innerJoin(loop, eq(loop.id, loopRevision.loopId))
    .innerJoin(system, eq(system.id, loop.systemId))
    .where(and(eq(fill.workshopId, account.workshopId), isNotNull(fill.taughtMl), measured))
    .orderBy(fill.filledOn, fill.id);
  const byId = new Map(rows.map((row) => [row.id, row]));
  const { surprising, ...told } = learnCatalogue(
    rows.map(({ id, file, taughtMl, taughtSdMl, verdict }) => ({
      id,
      loop: file,
      fill: { volumeMl: taughtMl ?? 0, sdMl: taughtSdMl ?? 0 },
      verdict,
    })),
  );
  return {
    ...told,
    surprising: surprising.flatMap((each) => {
      const row = byId.get(each.id);
      return row ? [{ ...each, system: row.system, filledOn: row.filledOn, runId: row.runId }] : [];
    }),
  };
}
