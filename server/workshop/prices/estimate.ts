import { eq } from 'drizzle-orm';
import { priceEstimate } from '../../../core/workshop/prices/lines.js';
import type { Estimate, EstimateInput } from '../../../core/workshop/prices/estimate.js';
import { loop } from '../../base/database/tables/loops.js';
import type { Ask } from '../../base/http/context.js';
import { readPriceList } from './priceList.js';

const sameInput = ({ priced: _, ...before }: Estimate, now: EstimateInput): boolean => {
  const sorted = (value: object): string => JSON.stringify(Object.entries(value).sort());
  return sorted({ ...before, parts: before.parts.map(sorted) }) === sorted({ ...now, parts: now.parts.map(sorted) });
};

/** The estimate of a job with its price of today. */
export async function pricedEstimate(
  ask: Pick<Ask, 'scope' | 'account'>,
  kind: string,
  loopId: string,
  input: EstimateInput,
  productId: string | null = null,
): Promise<Estimate> {
  const [own] = await ask.scope.select({ productId: loop.coolantProductId }).from(loop).where(eq(loop.id, loopId));
  const list = await readPriceList(ask);
  const parts = input.parts.map((part) => {
    const item = list.items.find(({ id }) => id === part.itemId);
    return item ? { ...part, what: item.name, unit: item.unit, eachMinor: item.priceMinor } : { ...part, itemId: null };
  });
  return { ...input, parts, priced: priceEstimate(list, kind, productId ?? own?.productId ?? null, { ...input, parts }) };
}

/**
 * The estimate of a job that is changed: where kind, hours, coolant and parts stay, what was told stands, whatever things cost by now.
 */
export async function repricedEstimate(
  ask: Pick<Ask, 'scope' | 'account'>,
  before: { readonly kind: string; readonly estimate: Estimate; readonly productId: string | null },
  now: { readonly kind: string; readonly loopId: string; readonly estimate: EstimateInput; readonly productId: string | null },
): Promise<{ readonly estimate: Estimate; readonly changed: boolean }> {
  const asTold = { ...now.estimate, parts: now.estimate.parts.map((part) => before.estimate.parts.find((old) => old.itemId !== null && old.itemId === part.itemId && old.amount === part.amount) ?? part) }; // prettier-ignore
  if (before.kind === now.kind && before.productId === now.productId && sameInput(before.estimate, asTold))
    return { estimate: before.estimate, changed: false };
  return { estimate: await pricedEstimate(ask, now.kind, now.loopId, now.estimate, now.productId), changed: true };
}
