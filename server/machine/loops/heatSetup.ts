import { eq } from 'drizzle-orm';
import type { HeatSetup } from '../../../core/physics/heat/setup.js';
import { loop } from '../../base/database/tables/loops.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { notFound } from '../../base/http/errors.js';

/** What is said of a loop's air and load stays with it; whoever says something later is right. */
export async function keepHeatSetup({ scope, request }: Ask, setup: HeatSetup): Promise<{ kept: boolean }> {
  const [own] = await scope
    .update(loop)
    .set({ heatSetup: setup })
    .where(eq(loop.id, idFrom(request, 'id', 'loop')))
    .returning({ id: loop.id });
  if (!own) throw notFound('loop');
  return { kept: true };
}
