import { eq } from 'drizzle-orm';
import type { FanStacks } from '../../../core/machine/shop-sums/fanScrews.js';
import type { Scope } from '../../base/database/client.js';
import { loop } from '../../base/database/tables/loops.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { notFound } from '../../base/http/errors.js';

type Said = Partial<Pick<typeof loop.$inferInsert, 'heatSetup' | 'fanStacks'>>;

/** What is said of a loop beside its drawing stays with it, whatever is drawn anew; whoever says something later is right. */
export async function keepSaid({ scope, request }: Ask, said: Said): Promise<{ kept: boolean }> {
  const [own] = await scope
    .update(loop)
    .set(said)
    .where(eq(loop.id, idFrom(request, 'id', 'loop')))
    .returning({ id: loop.id });
  if (!own) throw notFound('loop');
  return { kept: true };
}

/** What was measured of a loop's fan screws. */
export async function fanStacksOf(scope: Scope, loopId: string): Promise<FanStacks> {
  const [own] = await scope.select({ stacks: loop.fanStacks }).from(loop).where(eq(loop.id, loopId));
  return own?.stacks ?? {};
}
