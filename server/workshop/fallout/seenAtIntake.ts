import { eq } from 'drizzle-orm';
import { suspensionOf } from '../../../core/machine/liquids/suspensions.js';
import { FALLOUT_STAGE_KEYS } from '../../../core/workshop/due-dates/facts.js';
import { SIGN_OF_STAGE, type Sign } from '../../../core/workshop/jobs/scope.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import { falloutLook } from '../../base/database/tables/fallout.js';
import { loop } from '../../base/database/tables/loops.js';
import type { Ask } from '../../base/http/context.js';
import { redate } from '../due-dates/redate.js';

/** Signs of a machine that comes in: of a suspension they are its stages of fallout as well, dated today. */
export async function seenAtIntake({ scope, account, clock, today }: Ask, loopId: string, signs: readonly Sign[]): Promise<void> {
  const stages = FALLOUT_STAGE_KEYS.filter((stage) => signs.includes(SIGN_OF_STAGE[stage]));
  if (stages.length === 0) return;
  const [own] = await scope
    .select({ coolantClass: coolantProduct.coolantClass, systemId: loop.systemId })
    .from(loop)
    .innerJoin(coolantProduct, eq(coolantProduct.id, loop.coolantProductId))
    .where(eq(loop.id, loopId));
  if (!own || !suspensionOf(own.coolantClass)) return;
  const look = { workshopId: account.workshopId, loopId, on: today, note: '', personId: account.personId, createdAt: clock.now() };
  await scope.insert(falloutLook).values(stages.map((stage) => ({ ...look, stage })));
  await redate(scope, { systemId: own.systemId });
}
