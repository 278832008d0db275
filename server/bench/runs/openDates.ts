import type { LooseEnd } from '../../../core/workshop/due-dates/facts.js';
import { eq } from 'drizzle-orm';
import { pouredMl, type RunState } from '../../../core/bench/runs/state.js';
import { openAfterFill } from '../../workshop/due-dates/open.js';
import { type Ask } from '../../base/http/context.js';
import { loop } from '../../base/database/tables/loops.js';
import { fill, type run } from '../../base/database/tables/runs.js';

export type RunRow = typeof run.$inferSelect;

export interface DateFacts {
  readonly row: RunRow;
  readonly jobId: string;
  readonly state: RunState;
  readonly systemId: string;
  readonly revisionId: string;
  readonly filledOn: string;
}

/** Without a recorded coolant and volume no clock can start; the record says so instead of a made-up date. */
export async function openDates(
  { scope, account, clock }: Ask,
  { row, jobId, state, systemId, revisionId, filledOn }: DateFacts,
  refill: { drainedMl?: number; intervalShare?: number; intervalReason?: readonly LooseEnd[] } = {},
): Promise<{ serviceDueOn: string | null; settlingDueOn: string | null }> {
  const poured = pouredMl(state);
  if (!state.coolant || poured <= 0) return { serviceDueOn: null, settlingDueOn: null };
  const [filled] = await scope
    .insert(fill)
    .values({
      workshopId: account.workshopId,
      revisionId,
      jobId,
      runId: row.id,
      productId: state.coolant.productId,
      batchId: state.coolant.batchId,
      filledOn,
      pouredMl: poured,
      ...refill,
      createdAt: clock.now(),
    })
    .returning({ id: fill.id });
  await scope.update(loop).set({ coolantProductId: state.coolant.productId }).where(eq(loop.id, row.loopId));
  return openAfterFill(scope, {
    workshopId: account.workshopId,
    systemId,
    loopId: row.loopId,
    fillId: (filled as { id: string }).id,
    productId: state.coolant.productId,
    filledOn,
    personId: account.personId,
    at: clock.now(),
    ...(refill.intervalShare === undefined ? {} : { intervalShare: refill.intervalShare, intervalReason: refill.intervalReason ?? [] }),
  });
}
