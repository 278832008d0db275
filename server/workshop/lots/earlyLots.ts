import { sql } from 'drizzle-orm';
import type { Scope } from '../../base/database/client.js';
import { lotWords } from './mates.js';

/** Lots that fail early and are in a machine now, by what they are called. */
export async function earlyIn(scope: Scope, systemId: string): Promise<string[]> {
  const { rows } = await scope.execute<{ of: string; lot: string }>(sql`
    select p.name as of, l.lot from early_lot e join coolant_lot l on l.id = e.lot_id join coolant_product p on p.id = l.product_id
      where e.over_on is null and exists (
        select 1 from loop o cross join lateral (
          select f.lot_id from fill f join loop_revision r on r.id = f.revision_id where r.loop_id = o.id order by f.filled_on desc, f.created_at desc limit 1
        ) newest where o.system_id = ${systemId} and newest.lot_id = e.lot_id)
    union select e.make, e.lot from early_lot e
      where e.over_on is null and e.lot_id is null and exists (
        select 1 from fitted_part b where b.system_id = ${systemId} and b.gone_on is null and lower(b.make) = lower(e.make) and lower(b.lot) = lower(e.lot))
    order by 1, 2`);
  return rows.map(({ of, lot }) => lotWords(of, lot));
}
