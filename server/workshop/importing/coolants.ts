import { say } from '../../../core/base/words/say.js';
import { randomUUID } from 'node:crypto';
import { refuse } from '../../../core/base/checking/input.js';
import { guessColour, plainWord, USUAL_BOTTLE_ML, type CoolantUse, type CoolantWord } from '../../../core/workshop/importing/words.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import type { Ask } from '../../base/http/context.js';

export type Product = Pick<typeof coolantProduct.$inferSelect, 'id' | 'name' | 'coolantClass' | 'sheetLifeMonths' | 'sheetLifeHours'>;

/** What names of coolants mean in one import: those of the shelf by their own name, and what the person said of others. */
export interface NamedCoolants {
  readonly uses: ReadonlyMap<string, CoolantUse>;
  /** the product that a name stands for, made where it is to be made */
  productOf(name: string, use: Exclude<CoolantUse, { use: 'unknown' }>): Product;
  /** products that are made with the import */
  readonly made: ReadonlyMap<string, Product & { colour: string }>;
}

export async function namedCoolants({ scope }: Pick<Ask, 'scope'>, words: readonly CoolantWord[]): Promise<NamedCoolants> {
  const shelf: Product[] = await scope
    .select({
      id: coolantProduct.id,
      name: coolantProduct.name,
      coolantClass: coolantProduct.coolantClass,
      sheetLifeMonths: coolantProduct.sheetLifeMonths,
      sheetLifeHours: coolantProduct.sheetLifeHours,
    })
    .from(coolantProduct);
  const byId = new Map(shelf.map((product) => [product.id, product]));
  const byName = new Map(shelf.map((product) => [plainWord(product.name), product]));
  const uses = new Map<string, CoolantUse>(shelf.map(({ id, name }) => [plainWord(name), { use: 'known', productId: id }]));
  words.forEach(({ name, as }, index) => {
    if (as.use === 'known' && !byId.has(as.productId)) refuse(`coolants[${index}].as.productId`, say('is no coolant of this workshop'));
    // a name that the shelf has is that product, whatever an older page says
    if (!byName.has(plainWord(name))) uses.set(plainWord(name), as);
  });
  const made = new Map<string, Product & { colour: string }>();
  return {
    uses,
    made,
    productOf(name, use) {
      if (use.use === 'known') return byId.get(use.productId) as Product;
      const key = plainWord(name);
      const own =
        made.get(key) ??
        { id: randomUUID(), name: name.trim(), coolantClass: use.coolantClass, sheetLifeMonths: null, sheetLifeHours: null, colour: guessColour(name) }; // prettier-ignore
      made.set(key, own);
      return own;
    },
  };
}

/** Writes the coolants that are made with the import. */
export async function writeCoolants(ask: Ask, importId: string, { made }: NamedCoolants): Promise<void> {
  if (made.size === 0) return;
  const { workshopId } = ask.account;
  await ask.scope.insert(coolantProduct).values(
    [...made.values()].map((product) => ({
      workshopId,
      importId,
      ...product,
      form: 'ready-mix' as const,
      bottleMl: USUAL_BOTTLE_ML,
    })),
  );
}
