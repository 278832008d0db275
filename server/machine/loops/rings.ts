import { eq } from 'drizzle-orm';
import { ringAges, type RingAge } from '../../../core/machine/seals/rings.js';
import { loop } from '../../base/database/tables/loops.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { notFound } from '../../base/http/errors.js';
import { wearByLoop } from '../../workshop/due-dates/wear.js';
import { newestRevision } from './revisions.js';

/** How old each ring and gasket of a loop is, as far as this workshop's own runs tell. */
export async function ringsOf({ scope, request, today }: Ask): Promise<{ rings: RingAge[] }> {
  const loopId = idFrom(request, 'id', 'loop');
  const [own] = await scope.select({ rings: loop.rings }).from(loop).where(eq(loop.id, loopId));
  if (!own) throw notFound('loop');
  const { file } = await newestRevision(scope, loopId);
  const wear = (await wearByLoop(scope, [loopId])).get(loopId);
  return { rings: wear ? ringAges(file, wear.baseOn, own.rings?.renewed ?? {}, today) : [] };
}
