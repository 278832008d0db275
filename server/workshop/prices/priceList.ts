import { say } from '../../../core/base/words/say.js';
import { asc, eq } from 'drizzle-orm';
import type { PriceList } from '../../../core/workshop/prices/rates.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import { workshop } from '../../base/database/tables/people.js';
import { storeItem } from '../../base/database/tables/store.js';
import { DEFAULT_RATES } from '../../../core/workshop/prices/rates.js';
import type { Ask } from '../../base/http/context.js';

/** All that this workshop's prices are made from, as it stands today. */
export async function readPriceList({ scope, account }: Pick<Ask, 'scope' | 'account'>): Promise<PriceList> {
  const [own] = await scope.select({ rates: workshop.rates }).from(workshop).where(eq(workshop.id, account.workshopId));
  const items = await scope
    .select({ id: storeItem.id, name: storeItem.name, lot: storeItem.lot, unit: storeItem.unit, priceMinor: storeItem.priceMinor })
    .from(storeItem)
    .orderBy(asc(storeItem.name), asc(storeItem.lot));
  const coolants = await scope
    .select({
      id: coolantProduct.id,
      name: coolantProduct.name,
      litreMinor: coolantProduct.priceMinor,
      form: coolantProduct.form,
      targetFraction: coolantProduct.targetFraction,
    })
    .from(coolantProduct)
    .orderBy(asc(coolantProduct.name));
  return {
    rates: own?.rates ?? DEFAULT_RATES,
    items: items.map(({ lot, ...each }) => ({
      ...each,
      name: lot === '' ? each.name : say('{name}, lot {lot}', { name: each.name, lot }),
    })),
    coolants: coolants.map(({ form, targetFraction, ...each }) => ({
      ...each,
      targetFraction: form === 'concentrate' ? targetFraction : null,
    })),
  };
}
