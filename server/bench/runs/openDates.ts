import { dyesTogether } from '../../../core/machine/liquids/dye.js';
import { isSeenBled } from '../../../core/bench/runs/criteria.js';
import type { Volume } from '../../../core/machine/loop-file/volume.js';
import type { TaughtFill } from '../../../core/physics/learning/ownLoop.js';
import type { LooseEnd } from '../../../core/workshop/due-dates/facts.js';
import { pouredMl, type RunState } from '../../../core/bench/runs/state.js';
import { fillLoop } from '../../workshop/due-dates/fillLoop.js';
import { type Ask } from '../../base/http/context.js';
import type { run } from '../../base/database/tables/runs.js';

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
  refill: {
    drainedMl?: number;
    rinses?: number;
    rinseMl?: number;
    taught?: TaughtFill | null;
    left?: Volume | null;
    intervalShare?: number;
    intervalReason?: readonly LooseEnd[];
  } = {},
): Promise<{ serviceDueOn: string | null; settlingDueOn: string | null }> {
  const poured = pouredMl(state);
  if (!state.coolant || poured <= 0) return { serviceDueOn: null, settlingDueOn: null };
  const { productId, lotId } = state.coolant;
  return fillLoop(scope, {
    ...{ workshopId: account.workshopId, personId: account.personId, at: clock.now() },
    ...{ systemId, loopId: row.loopId, revisionId, jobId, runId: row.id },
    ...{ productId, lotId, filledOn, pouredMl: poured },
    seenBled: isSeenBled(state),
    dyes: dyesTogether(state.dyes),
    ...refill,
  });
}
