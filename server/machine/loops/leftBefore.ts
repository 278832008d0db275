import { and, eq, isNotNull } from 'drizzle-orm';
import type { Volume } from '../../../core/machine/loop-file/volume.js';
import type { Scope } from '../../base/database/client.js';
import { fill } from '../../base/database/tables/runs.js';
import { newestRevision } from './revisions.js';

/** What the drains of this loop, as it is built now, left inside. */
export async function leftBefore(scope: Scope, loopId: string): Promise<Volume[]> {
  const { id } = await newestRevision(scope, loopId);
  const rows = await scope
    .select({ volumeMl: fill.leftMl, sdMl: fill.leftSdMl })
    .from(fill)
    .where(and(eq(fill.revisionId, id), isNotNull(fill.leftMl)));
  return rows.map(({ volumeMl, sdMl }) => ({ volumeMl: volumeMl ?? 0, sdMl: sdMl ?? 0 }));
}
