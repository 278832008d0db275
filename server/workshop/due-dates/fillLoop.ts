import type { Volume } from '../../../core/machine/loop-file/volume.js';
import type { Dye } from '../../../core/machine/liquids/dye.js';
import type { TaughtFill } from '../../../core/physics/learning/ownLoop.js';
import { and, eq, sql } from 'drizzle-orm';
import type { Scope } from '../../base/database/client.js';
import { loop } from '../../base/database/tables/loops.js';
import { fill } from '../../base/database/tables/runs.js';
import { openAfterFill, type FillFacts } from './open.js';

export interface FillMade extends Omit<FillFacts, 'fillId'> {
  readonly revisionId: string;
  readonly jobId: string;
  /** the led run that filled it; missing: entered afterwards */
  readonly runId?: string;
  readonly lotId?: string | null;
  /** null: nobody wrote it down */
  readonly pouredMl: number | null;
  readonly drainedMl?: number | null;
  readonly rinses?: number;
  readonly rinseMl?: number;
  /** what it teaches of the loop's volumes; nothing where it did not begin dry */
  readonly taught?: TaughtFill | null;
  /** dye that went into it */
  readonly dyes?: readonly Dye[];
  /** what the drain before it left inside */
  readonly left?: Volume | null;
}

/**
 * The one way a fill comes into being: its row, the coolant that is now in the loop, and the dates that follow from it.
 * Before: run or service were checked.
 */
export async function fillLoop(scope: Scope, made: FillMade): Promise<{ serviceDueOn: string; settlingDueOn: string }> {
  const { workshopId, loopId, productId, revisionId, jobId, runId, lotId, filledOn, pouredMl, drainedMl, rinses, rinseMl } = made;
  const { intervalShare, intervalReason, taught, left } = made;
  const [filled] = await scope
    .insert(fill)
    .values({
      ...{ workshopId, revisionId, jobId, runId, productId, lotId, filledOn, pouredMl, drainedMl, rinses, rinseMl },
      ...(taught ? { taughtMl: taught.volumeMl, taughtSdMl: taught.sdMl } : {}),
      ...(made.dyes && made.dyes.length > 0 ? { dyes: made.dyes } : {}),
      ...(left ? { leftMl: left.volumeMl, leftSdMl: left.sdMl } : {}),
      ...(intervalShare === undefined ? {} : { intervalShare, intervalReason }),
      createdAt: made.at,
    })
    .returning({ id: fill.id });
  // somebody who edits the loop meanwhile is told only where something changed
  await scope
    .update(loop)
    .set({ coolantProductId: productId, version: sql`${loop.version} + 1` })
    .where(and(eq(loop.id, loopId), sql`${loop.coolantProductId} is distinct from ${productId}`));
  return openAfterFill(scope, { ...made, fillId: (filled as { id: string }).id });
}
