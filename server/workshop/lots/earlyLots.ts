import { sql } from 'drizzle-orm';
import type { Scope } from '../../base/database/client.js';
import { lotWords } from './mates.js';

/** Lots that fail early and are in a machine now, by what they are called. */
export async function earlyIn(scope: Scope, systemId: string): Promise<string[]> {
  const { rows } = await scope.execute<{ of: string; lot: string }>(sql`
    with newest as materialized (
      select distinct on (o.id) f.lot_id from loop o join loop_revision r on r.loop_id = o.id join fill f on f.revision_id = r.id
        where o.system_id = ${systemId} order by o.id, f.filled_on desc, f.created_at desc)
    select p.name as of, l.lot from newest n join early_lot e on e.lot_id = n.lot_id
      join coolant_lot l on l.id = e.lot_id join coolant_product p on p.id = l.product_id where e.over_on is null
    union select e.make, e.lot from early_lot e
      where e.over_on is null and e.lot_id is null and exists (
        select 1 from fitted_part b where b.system_id = ${systemId} and b.gone_on is null and lower(b.make) = lower(e.make) and lower(b.lot) = lower(e.lot))
    order by 1, 2`);
  return rows.map(({ of, lot }) => lotWords(of, lot));
}
