import { and, desc, eq } from 'drizzle-orm';
import type { LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import type { HeatSetup } from '../../../core/physics/heat/setup.js';
import { isOutline } from '../../../core/machine/loop-file/outline.js';
import type { Scope } from '../../base/database/client.js';
import { isInside, loop, loopRevision } from '../../base/database/tables/loops.js';

export interface DrawnLoop {
  readonly id: string;
  readonly name: string;
  readonly coolantProductId: string | null;
  readonly file: LoopFile;
  /** what is said of its air and load; null: nothing */
  readonly heatSetup: HeatSetup | null;
}

/** Loops of a machine that are drawn, the newest revision of each. */
export async function drawnLoops(scope: Scope, systemId: string): Promise<DrawnLoop[]> {
  const all = await scope
    .selectDistinctOn([loop.id], {
      id: loop.id,
      name: loop.name,
      coolantProductId: loop.coolantProductId,
      heatSetup: loop.heatSetup,
      file: loopRevision.file,
    })
    .from(loop)
    .innerJoin(loopRevision, eq(loopRevision.loopId, loop.id))
    .where(and(eq(loop.systemId, systemId), isInside))
    .orderBy(loop.id, desc(loopRevision.number));
  return all.filter(({ file }) => !isOutline(file));
}
