import { eq } from 'drizzle-orm';
import type { Glycol } from '../../../core/machine/liquids/fluids.js';
import type { Miscible } from '../../../core/machine/liquids/mixing.js';
import { orderCoolant, type CoolantOrder } from '../../../core/machine/liquids/order.js';
import type { LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import { fillVolume } from '../../../core/physics/filling/fillPlan.js';
import type { Scope } from '../../base/database/client.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';

type ProductRow = typeof coolantProduct.$inferSelect;

export async function productOf(scope: Scope, productId: string | null): Promise<ProductRow | null> {
  if (productId === null) return null;
  const [product] = await scope.select().from(coolantProduct).where(eq(coolantProduct.id, productId));
  return product ?? null;
}

export const orderFor = (file: LoopFile, product: ProductRow | null): CoolantOrder | null =>
  product &&
  orderCoolant(fillVolume(file), {
    form: product.form,
    targetFraction: product.targetFraction,
    bottleMl: product.bottleMl,
  });

/** What decides whether a coolant may meet another. */
export const miscible = (row: ProductRow): Miscible => ({
  productId: row.id,
  name: row.name,
  coolantClass: row.coolantClass,
  glycol: row.glycol as Glycol | null,
  inhibitor: row.inhibitor,
});
