import { eq } from 'drizzle-orm';
import { ringsRenewedIn } from '../../../core/bench/runs/ringsAfter.js';
import type { RunState } from '../../../core/bench/runs/state.js';
import type { LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import { oldestRenewed } from '../../../core/machine/seals/rings.js';
import type { Scope } from '../../base/database/client.js';
import { loop } from '../../base/database/tables/loops.js';

/** Rings that a run renewed have an age of their own from its day on. */
export async function keepRings(scope: Scope, loopId: string, file: LoopFile, state: RunState, on: string): Promise<void> {
  const places = ringsRenewedIn(state);
  if (places.length === 0) return;
  const [own] = await scope.select({ rings: loop.rings }).from(loop).where(eq(loop.id, loopId)).for('update');
  const renewed = { ...own?.rings?.renewed, ...Object.fromEntries(places.map((place) => [place, on])) };
  await scope
    .update(loop)
    .set({ rings: { renewed, oldestOn: oldestRenewed(file, renewed) } })
    .where(eq(loop.id, loopId));
}
