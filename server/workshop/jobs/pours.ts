import { eq } from 'drizzle-orm';
import { daysBetween } from '../../../core/base/units/calendar.js';
import { rinsesAhead, staysAfter } from '../../../core/bench/runs/rinses.js';
import { serviceFacts } from '../../../core/bench/services/serviceFacts.js';
import { liquidOf } from '../../../core/machine/liquids/fluids.js';
import { mayMix } from '../../../core/machine/liquids/mixing.js';
import { isOutline } from '../../../core/machine/loop-file/outline.js';
import { fillVolume } from '../../../core/physics/filling/fillPlan.js';
import { nextService } from '../../../core/workshop/due-dates/due.js';
import { unsuitedMetals, yearOf, type PourChoice } from '../../../core/workshop/jobs/pourChoice.js';
import { coolantLine } from '../../../core/workshop/prices/lines.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import { loop } from '../../base/database/tables/loops.js';
import { system } from '../../base/database/tables/machines.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { notFound } from '../../base/http/errors.js';
import { drainPolicyOf } from '../../machine/loops/drainPolicy.js';
import { contentsOf, insideOf } from '../../machine/loops/inside.js';
import { leftBefore } from '../../machine/loops/leftBefore.js';
import { newestRevision } from '../../machine/loops/revisions.js';
import { miscible, productOf } from '../coolants/products.js';
import { clockInputs } from '../due-dates/clockInputs.js';
import { readPriceList } from '../prices/priceList.js';

/** Every coolant of the shelf against what is inside one loop: may they meet, how often to rinse, when it comes out again, what a year costs. */
export async function readPours(ask: Ask): Promise<PourChoice> {
  const { scope, today } = ask;
  const loopId = idFrom(ask.request, 'id', 'loop');
  const [own] = await scope.select({ loop, system }).from(loop).innerJoin(system, eq(system.id, loop.systemId)).where(eq(loop.id, loopId));
  if (!own) throw notFound('loop');
  const { file } = await newestRevision(scope, loopId);
  const now = await productOf(scope, own.loop.coolantProductId);
  const inside = await insideOf(scope, loopId, file);
  const isEmpty = own.system.state === 'planned';
  const contents = await contentsOf(scope, loopId);
  const facts =
    isOutline(file) || isEmpty
      ? null
      : serviceFacts({
          ...{ loop: file, kind: 'flush-refill', jobId: '', filled: true, part: null, old: null, mixes: [] },
          liquid: liquidOf(now ?? undefined),
          policy: await drainPolicyOf(scope),
          leftBefore: await leftBefore(scope, loopId),
          ...(contents ? { contents } : {}),
        });
  const insideMl = isEmpty ? 0 : (inside.volume?.volumeMl ?? null);
  const inputOf = await clockInputs(scope, { loopIds: [loopId], systemIds: [own.system.id] });
  const list = await readPriceList(ask);
  const shelf = await scope.select().from(coolantProduct);
  const takesMl = fillVolume(file).volumeMl;
  return {
    insideMl,
    // what the bench will count a rinse with, the film on the walls included
    leftMl: facts?.inside ? staysAfter(facts, facts.inside.volumeMl).leftMl : null,
    options: shelf
      .map((product) => {
        const mix = isEmpty ? null : mayMix(now && miscible(now), miscible(product));
        const fill = { filledOn: today, intervalShare: 1, intervalReason: [], promisedOn: null };
        const due = nextService({ ...inputOf({ loopId, fill, product, machine: own.system }), condition: null });
        const each = coolantLine(list, product.id, takesMl)?.sumMinor ?? null;
        return {
          productId: product.id,
          name: product.name,
          colour: product.colour,
          verdict: mix?.verdict ?? ('fine' as const),
          reason: mix?.reason ?? '',
          unsuited: unsuitedMetals(file, product.metals),
          rinses: mix === null || mix.mostOldFraction >= 1 ? 0 : facts && rinsesAhead(facts, mix.mostOldFraction),
          firstDueOn: due.dueOn,
          dueReason: due.reason,
          estimated: due.estimated,
          yearMinor: each === null ? null : yearOf(each, daysBetween(today, due.dueOn)),
        };
      })
      .sort((a, b) => a.name.localeCompare(b.name)),
  };
}
