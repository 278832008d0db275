import type { LearnedAnswer } from '../../../core/physics/learning/answers.js';
import { and, eq, isNotNull, sql } from 'drizzle-orm';
import { learnCatalogue } from '../../../core/physics/learning/volumes.js';
import type { LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import { fill } from '../../base/database/tables/runs.js';
import type { Routes } from '../../base/http/routes.js';
import { loopRevision } from '../../base/database/tables/loops.js';

/** A fill at a simulated bench says nothing about real parts. */
const measured = sql`not exists (select 1 from reading where reading.run_id = ${fill.runId} and reading.source = 'simulated')`;

/** What the workshop's own signed-off first fills say about the catalogue's volumes. */
export function learningRoutes(routes: Routes): void {
  routes.get<LearnedAnswer>('/learned-volumes', async ({ scope, account }) => {
    const rows = await scope
      .select({ file: loopRevision.file, pouredMl: fill.pouredMl })
      .from(fill)
      .innerJoin(loopRevision, eq(loopRevision.id, fill.revisionId))
      .where(and(eq(fill.workshopId, account.workshopId), isNotNull(fill.runId), measured));
    const items = learnCatalogue(rows.map(({ file, pouredMl }) => ({ loop: file as LoopFile, pouredMl })));
    return { items, fills: rows.length };
  });
}
