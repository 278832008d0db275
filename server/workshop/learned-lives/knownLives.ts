import { sql } from 'drizzle-orm';
import type { CoolantClass } from '../../../core/machine/liquids/classes.js';
import { isMetal } from '../../../core/machine/materials/metals.js';
import type { GroupedLife } from '../../../core/workshop/learned-lives/earlyGroups.js';
import { ENDS_A_COOLANT, lifeOfFill, type FillLife } from '../../../core/workshop/learned-lives/fillLives.js';
import type { Scope } from '../../base/database/client.js';

interface FillRow extends Record<string, unknown> {
  id: string;
  system_id: string;
  coolant_class: CoolantClass;
  product_id: string;
  lot_id: string | null;
  filled_on: string;
  drained_on: string | null;
  known_from: string | null;
  failed_on: string[] | null;
  tubes: string[] | null;
  materials: string[] | null;
}

/** days of findings that name one of these causes, each in the loop that its job opened */
const causes = sql.join(
  ENDS_A_COOLANT.map((cause) => sql`${cause}`),
  sql`, `,
);

/**
 * Every fill of the workshop as a life. It ends when the next one goes in, when its loop ends, or today; what its own job found belongs to
 * the fill before it. A recorded service counts from the day it was done. Row policies leave one workshop in sight.
 */
export async function fillLives(scope: Scope, today: string): Promise<FillLife[]> {
  const { rows } = await scope.execute<FillRow>(sql`
    with lives as (
      select f.id, f.job_id, l.system_id, l.id as loop_id, f.revision_id, f.product_id, f.lot_id, f.filled_on,
        lead(f.filled_on) over (partition by l.id order by f.filled_on, f.created_at) as next_on,
        o.on as ended_on,
        case when j.import_id is not null then j.created_at::date end as known_from
      from fill f join loop_revision r on r.id = f.revision_id join loop l on l.id = r.loop_id join job j on j.id = f.job_id
        left join (select d.fill_id, max(d.closed_at)::date as on from due_item d
          where d.outcome ->> 'why' in ('loop-ended', 'machine-retired') group by d.fill_id) o on o.fill_id = f.id
    ), ends as (
      select x.job_id, x.system_id, coalesce(j.done_on, x.found_at::date) as found_on,
        coalesce((select u.loop_id from run u where u.job_id = x.job_id limit 1), (select s.loop_id from service_job s where s.job_id = x.job_id),
          (select v.loop_id from lives v where v.job_id = x.job_id limit 1)) as loop_id
      from finding x left join job j on j.id = x.job_id
      where x.fact ->> 'why' = 'cause' and x.fact ->> 'cause' in (${causes})
      union all
      select null::uuid, l.system_id, k.on_day, k.loop_id from fallout_look k join loop l on l.id = k.loop_id
        where k.stage = 'stays' and k.struck_at is null
    ), materials as (
      select r.id,
        (select array_agg(distinct t ->> 'material' order by t ->> 'material') from jsonb_array_elements(r.file -> 'tubes') t where t ->> 'inside' is distinct from 'true') as tubes,
        (select array_agg(distinct m order by m) from jsonb_array_elements(r.file -> 'components') c, jsonb_array_elements_text(coalesce(c -> 'materials', '[]')) m) as materials
      from loop_revision r where r.id in (select revision_id from lives)
    ), failures as (
      select v.id, array_agg(e.found_on::text) as days from lives v
        join ends e on e.system_id = v.system_id and (e.loop_id is null or e.loop_id = v.loop_id) and e.job_id is distinct from v.job_id group by v.id
    )
    select v.id, v.system_id, p.coolant_class, v.product_id, v.lot_id, v.filled_on::text, least(v.next_on, v.ended_on)::text as drained_on,
      v.known_from::text, m.tubes, m.materials, failures.days as failed_on
    from lives v join coolant_product p on p.id = v.product_id join materials m on m.id = v.revision_id left join failures on failures.id = v.id
    order by v.filled_on, v.id`);
  return rows.map((row): FillLife => ({
    fillId: row.id,
    systemId: row.system_id,
    coolantClass: row.coolant_class,
    productId: row.product_id,
    lotId: row.lot_id,
    tubes: row.tubes ?? [],
    metals: (row.materials ?? []).filter(isMetal),
    ...lifeOfFill({
      filledOn: row.filled_on,
      drainedOn: row.drained_on,
      failedOn: row.failed_on ?? [],
      knownFrom: row.known_from,
      today,
    }),
  }));
}

interface PartRow extends Record<string, unknown> {
  system_id: string;
  kind: string;
  make: string;
  lot: string;
  fitted_on: string;
  gone_on: string | null;
  failed_on: string[] | null;
}

/** Make and lot as one word, whatever their letters. */
export const partGroup = (make: string, lot: string): string => JSON.stringify([make.toLowerCase(), lot.toLowerCase()]);

/**
 * Parts of known lots whose place is known, as lives: they end with what names them as failed, leaking or the cause of something, found after
 * they were fitted. A bag without a place is left out: nobody would see it fail.
 */
export async function partLives(scope: Scope, today: string): Promise<GroupedLife[]> {
  const { rows } = await scope.execute<PartRow>(sql`
    select p.system_id, p.make, p.lot, p.fitted_on::text, p.gone_on::text,
      coalesce((select c ->> 'kind' from loop_revision r, jsonb_array_elements(r.file -> 'components') c
        where r.loop_id = p.loop_id and c ->> 'id' = p.item_id order by r.number desc limit 1), case when p.item_id like 'plug:%' then 'plug' else 'tube' end) as kind,
      (select array_agg(coalesce(j.done_on, x.found_at::date)::text) from finding x left join job j on j.id = x.job_id
        where x.system_id = p.system_id and x.fact ->> 'item' = p.item_id and x.job_id is distinct from p.job_id
          and (x.severity = 'failure' or x.fact ->> 'why' = 'cause')) as failed_on
    from fitted_part p where p.item_id is not null order by p.fitted_on, p.id`);
  return rows.map((row): GroupedLife => ({
    systemId: row.system_id,
    kind: `part ${row.kind}`,
    group: partGroup(row.make, row.lot),
    ...lifeOfFill({
      filledOn: row.fitted_on,
      drainedOn: row.gone_on,
      failedOn: row.failed_on ?? [],
      knownFrom: null,
      today,
    }),
  }));
}
