import { and, eq } from 'drizzle-orm';
import type { RunEvent } from '../../core/commissioning/events.js';
import type { Procedure } from '../../core/commissioning/procedure.js';
import { replay, type RunState } from '../../core/commissioning/state.js';
import { moveOfEntry, type HandMove } from '../../core/simulated-bench/hands.js';
import type { Scope } from '../database/client.js';
import { pushNotice } from '../push/notices.js';
import { instrument } from './tables.js';

/** Switches a bench's supply, once the transaction is committed. */
export const switchSupply = (scope: Scope, workshopId: string, benchId: string, on: boolean): Promise<void> =>
  pushNotice(scope, workshopId, { kind: 'bench-command', benchId, topic: 'supply/set', payload: { on } });

/** Moves the hands at a simulated bench. `leave` ends it. */
export const moveHands = (scope: Scope, workshopId: string, benchId: string, move: HandMove | { readonly do: 'leave' }): Promise<void> =>
  pushNotice(scope, workshopId, { kind: 'bench-command', benchId, topic: 'hands', payload: move });

/** Whether instruments of a bench, simulated or real ones, are there now. */
export async function hasOnline(scope: Scope, benchId: string, which: 'simulated' | 'real'): Promise<boolean> {
  const rows = await scope
    .select({ kind: instrument.kind })
    .from(instrument)
    .where(and(eq(instrument.benchId, benchId), eq(instrument.simulated, which === 'simulated'), eq(instrument.online, true)))
    .limit(1);
  return rows.length > 0;
}

/** After an entry: the supply follows what the log says, and a simulated bench does what the hands did. */
export async function tellBench(
  scope: Scope,
  workshopId: string,
  benchId: string,
  procedure: Procedure,
  events: readonly RunEvent[],
  before: RunState,
): Promise<void> {
  const after = replay(procedure, events);
  if ((before.pump?.on ?? false) !== (after.pump?.on ?? false)) await switchSupply(scope, workshopId, benchId, after.pump?.on ?? false);
  const body = events.at(-1)?.body;
  const move = body ? moveOfEntry(body, after) : null;
  if (move && (await hasOnline(scope, benchId, 'simulated'))) await moveHands(scope, workshopId, benchId, move);
}
