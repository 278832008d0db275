import { and, inArray, isNotNull } from 'drizzle-orm';
import type { LearnedMonths } from '../../../core/workshop/due-dates/facts.js';
import type { coolantProduct } from '../../base/database/tables/coolants.js';
import { learnedLife } from '../../base/database/tables/learned-lives.js';
import { workshop } from '../../base/database/tables/people.js';
import type { Scope } from '../../base/database/client.js';

type Product = Pick<typeof coolantProduct.$inferSelect, 'id' | 'coolantClass' | 'sheetLifeMonths'>;

/** What fills of a product, or of its class where its sheet states no life, lasted here. */
export async function learnedMonths(scope: Scope): Promise<(product: Product) => LearnedMonths | null> {
  const [own] = await scope.select({ risk: workshop.lifeRisk }).from(workshop).limit(1);
  const rows = await scope
    .select({
      by: learnedLife.by,
      key: learnedLife.key,
      months: learnedLife.months,
      lowMonths: learnedLife.lowMonths,
      fills: learnedLife.fills,
      failed: learnedLife.failed,
    }) // prettier-ignore
    .from(learnedLife)
    .where(and(inArray(learnedLife.by, ['class', 'product']), isNotNull(learnedLife.months)));
  const told = new Map(rows.map(({ by, key, ...figures }) => [`${by} ${key}`, { of: by as 'class' | 'product', figures }]));
  return ({ id, coolantClass, sheetLifeMonths }) => {
    // a sheet speaks for its product until fills of that very product fail
    const found = told.get(`product ${id}`) ?? (sheetLifeMonths === null ? told.get(`class ${coolantClass}`) : undefined);
    if (!own || !found) return null;
    const { months, lowMonths, fills, failed } = found.figures;
    return { of: found.of, months: months as number, lowMonths: lowMonths as number, risk: own.risk, fills, failed };
  };
}
