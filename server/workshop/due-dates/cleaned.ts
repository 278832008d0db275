import { and, eq } from 'drizzle-orm';
import { dustClean } from '../../../core/workshop/due-dates/dust.js';
import type { Outcome } from '../../../core/workshop/due-dates/facts.js';
import type { Scope } from '../../base/database/client.js';
import { dueItem } from '../../base/database/tables/due-dates.js';
import { system } from '../../base/database/tables/machines.js';
import { refreshCondition } from '../../machine/condition/condition.js';
import { hotSeasonOf } from './dust.js';
import { redate } from './redate.js';

/** Small work on a machine that is done, and begins anew. */
export interface Cleaned {
  readonly workshopId: string;
  readonly systemId: string;
  readonly loopId: string;
  readonly on: string;
  readonly personId: string;
  readonly at: Date;
  /** words of whoever did it without a job */
  readonly outcome?: Outcome;
}

/**
 * Fins and filters are clean: what was due is answered, and the next cleaning gets its day. One open item a machine. What was read before
 * calls it in no more.
 */
export async function restartDust(
  scope: Scope,
  { workshopId, systemId, loopId, on, personId, at, outcome = { why: 'in-service' } }: Cleaned,
): Promise<void> {
  const [own] = await scope.select({ place: system.dustPlace }).from(system).where(eq(system.id, systemId));
  if (!own) return;
  await scope
    .update(dueItem)
    .set({ state: 'closed', outcome, closedAt: at, closedBy: personId })
    .where(and(eq(dueItem.systemId, systemId), eq(dueItem.kind, 'dust-clean'), eq(dueItem.state, 'open')));
  const next = dustClean(on, own.place, await hotSeasonOf(scope));
  await scope
    .insert(dueItem)
    .values({ workshopId, systemId, loopId, kind: 'dust-clean', sinceOn: on, ...next, estimated: true, clocks: [], createdAt: at });
  await refreshCondition(scope, systemId);
  await redate(scope, { systemId });
}

/** A loop was filled for the first time here: its fins are clean, unless a cleaning already runs. */
export async function beginDust(scope: Scope, cleaned: Cleaned): Promise<void> {
  const [running] = await scope
    .select({ id: dueItem.id })
    .from(dueItem)
    .where(and(eq(dueItem.systemId, cleaned.systemId), eq(dueItem.kind, 'dust-clean'), eq(dueItem.state, 'open')))
    .limit(1);
  if (!running) await restartDust(scope, cleaned);
}
