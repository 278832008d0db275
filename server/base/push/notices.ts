import { sql } from 'drizzle-orm';
import type { HandMove } from '../../../core/bench/simulated-bench/hands.js';
import type { InstrumentKind } from '../../../core/bench/instruments/kinds.js';
import type { Scope } from '../database/client.js';

/** Number, kind, value, ISO instant: short, because a notice may hold 8 000 bytes. */
export type ReadingRow = readonly [id: number, kind: InstrumentKind, value: number, at: string];

/** For everybody of the workshop who looks. What a run holds is asked for under its own rights: ids only. */
export type PushNotice =
  | { readonly kind: 'run'; readonly runId: string; readonly seq: number }
  /** a machine came to a bench or left it */
  | { readonly kind: 'benches' }
  /** an owner sent something, or what waits for owners changed */
  | { readonly kind: 'owners' }
  /** due dates of machines moved */
  | { readonly kind: 'dates' }
  | { readonly kind: 'readings'; readonly benchId: string; readonly readings: readonly ReadingRow[] }
  /** an instrument came, went, or said something that was not understood */
  | { readonly kind: 'instruments'; readonly benchId: string }
  /** what eyes notice at a simulated bench */
  | { readonly kind: 'seen'; readonly benchId: string; readonly at: string; readonly text: string };

/** What a bench is told; `topic` is below the bench's own. */
export type BenchTelling =
  | { readonly topic: 'supply/set'; readonly payload: { readonly on: boolean } }
  | { readonly topic: 'hands'; readonly payload: HandMove | { readonly do: 'leave' } };

/** For the one server process that speaks with the instruments; no browser sees it. */
export type BenchCommand = { readonly kind: 'bench-command'; readonly benchId: string } & BenchTelling;

export const PUSH_CHANNEL = 'lavacrum_push';

/**
 * Tells every server process, once the transaction is committed: a notice of what was rolled back is never sent.
 */
export async function pushNotice(scope: Scope, workshopId: string, notice: PushNotice | BenchCommand): Promise<void> {
  await scope.execute(sql`select pg_notify(${PUSH_CHANNEL}, ${JSON.stringify({ workshopId, ...notice })})`);
}

/** Several at once, in their order. */
export async function pushNotices(scope: Scope, workshopId: string, notices: readonly PushNotice[]): Promise<void> {
  const payloads = JSON.stringify(notices.map((notice) => JSON.stringify({ workshopId, ...notice })));
  await scope.execute(sql`select pg_notify(${PUSH_CHANNEL}, payload) from jsonb_array_elements_text(${payloads}::jsonb) as told (payload)`);
}
