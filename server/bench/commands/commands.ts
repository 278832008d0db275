import { and, eq } from 'drizzle-orm';
import type { HandMove } from '../../../core/bench/simulated-bench/hands.js';
import type { Scope } from '../../base/database/client.js';
import { pushNotice } from '../../base/push/notices.js';
import { instrument } from '../../base/database/tables/instruments.js';

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
  { pumpWasOn, pumpIsOn, moves }: { readonly pumpWasOn: boolean; readonly pumpIsOn: boolean; readonly moves: readonly HandMove[] },
): Promise<void> {
  if (pumpWasOn !== pumpIsOn) await switchSupply(scope, workshopId, benchId, pumpIsOn);
  if (moves.length === 0 || !(await hasOnline(scope, benchId, 'simulated'))) return;
  for (const move of moves) await moveHands(scope, workshopId, benchId, move);
}
