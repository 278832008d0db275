import { sql } from 'drizzle-orm';
import { TUBE_MATERIAL_NAMES, TUBE_MATERIALS } from '../../../core/machine/materials/tubes.js';
import type { Scope } from '../../base/database/client.js';

/** Since when seals and tube of a loop serve, as far as this workshop's own fills tell. */
export interface Wear {
  readonly sealsOn: string;
  /** the last strip, or the first fill */
  readonly baseOn: string;
  readonly tubeOn: string;
  readonly softTube: boolean;
}

const SOFT = TUBE_MATERIAL_NAMES.filter((name) => TUBE_MATERIALS[name].soft);

/**
 * Seals are new at the first fill and after every strip, or once each of them was renewed by itself; tube at the first fill. Read once for all loops that are asked
 * for, whatever their number.
 * @param loopIds null: every loop of the workshop
 */
export async function wearByLoop(scope: Scope, loopIds: readonly string[] | null): Promise<ReadonlyMap<string, Wear>> {
  if (loopIds?.length === 0) return new Map();
  const only =
    loopIds === null
      ? sql`true`
      : sql`r.loop_id in (${sql.join(
          loopIds.map((id) => sql`${id}::uuid`),
          sql`, `,
        )})`;
  const softList = sql.join(
    SOFT.map((name) => sql`${name}`),
    sql`, `,
  );
  const { rows } = await scope.execute<{ loop_id: string; first: string; base: string; seals: string; soft: boolean }>(sql`
    with newest as (select distinct on (r.loop_id) r.loop_id, r.id from loop_revision r where ${only} and r.kind <> 'wanted' order by r.loop_id, r.number desc),
    filled as (
      select r.loop_id, min(f.filled_on)::text as first, (max(f.filled_on) filter (where j.kind = 'strip-clean'))::text as strip
      from fill f join loop_revision r on r.id = f.revision_id join job j on j.id = f.job_id where ${only} group by r.loop_id)
    select filled.loop_id, filled.first, coalesce(filled.strip, filled.first) as base, greatest(coalesce(filled.strip, filled.first), l.rings ->> 'oldestOn') as seals,
      exists (select 1 from tube t where t.revision_id = newest.id and t.material in (${softList})) as soft
    from filled join newest on newest.loop_id = filled.loop_id join loop l on l.id = filled.loop_id`);
  return new Map(rows.map((row) => [row.loop_id, { sealsOn: row.seals, baseOn: row.base, tubeOn: row.first, softTube: row.soft }]));
}
