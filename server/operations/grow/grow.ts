import { sql } from 'drizzle-orm';
import { STARTERS, buildLoop } from '../../../core/machine/catalogue/starters.js';
import { loopVolume } from '../../../core/machine/loop-file/volume.js';
import type { Database } from '../../base/database/client.js';
import { inWorkshop } from '../../base/database/client.js';
import { person, workshop } from '../../base/database/tables/people.js';
import { system } from '../../base/database/tables/machines.js';
import { redate } from '../../workshop/due-dates/redate.js';
import { freshenLines } from '../../workshop/machine-list/freshLines.js';
import { LaunchProblem } from '../cluster/processes.js';

/** A full workshop for measuring, and for whoever wants to see the product full: rows made where they lie, nothing travels. */

/** of each machine: its build and a change twice a year */
export const FILLS_EACH = 21;
const DAYS_BETWEEN = 180;
/** machines that one owner has */
const EACH_OWNER = 10;
/** most that one run makes: a chain of workshops has fewer in one */
const MOST = 200_000;

const COOLANTS = [
  ['Clear', 'clear', '#7fb8c9', 24],
  ['Chalk', 'opaque', '#e9e4d6', 6],
  ['Plain water', 'biocide', '#cfe3ea', 6],
] as const;

export interface Grown {
  readonly machines: number;
  readonly fills: number;
  readonly ms: number;
}

/** @throws LaunchProblem where there is no workshop yet, more than one, or one that has machines already */
export async function grow(database: Database, machines: number, now: Date): Promise<Grown> {
  if (!Number.isInteger(machines) || machines < 1 || machines > MOST)
    throw new LaunchProblem(`say how many machines, 1 to ${MOST}: ./lavacrum grow 10000`);
  const startMs = performance.now();
  const shops = await database.select({ id: workshop.id }).from(workshop).limit(2);
  const [shop] = shops;
  if (!shop) throw new LaunchProblem('there is no workshop yet: the first visit makes it, or ./lavacrum workshop');
  if (shops.length > 1) throw new LaunchProblem('there are several workshops on this server; only a server’s only one is filled');
  const today = now.toISOString().slice(0, 10);
  await inWorkshop(database, shop.id, async (scope) => {
    const [known] = await scope.select({ id: system.id }).from(system).limit(1);
    if (known) throw new LaunchProblem('this workshop has machines: only an empty one is filled');
    const [lead] = await scope.select({ id: person.id }).from(person).limit(1);
    const [shopId, by] = [shop.id, (lead as { id: string }).id];
    // tables that nobody has counted yet look small: joined row by row, ten thousand machines take minutes
    await scope.execute(sql`set local enable_nestloop = off`);
    for (const statement of statementsFor(machines, shopId, by, today)) await scope.execute(statement);
    await redate(scope, { everything: true });
    await freshenLines({ scope, today });
  });
  return { machines, fills: machines * FILLS_EACH, ms: performance.now() - startMs };
}

function statementsFor(machines: number, shop: string, by: string, today: string) {
  const loops = STARTERS.map(({ label, picks }) => buildLoop(label, picks));
  const products = sql.join(
    COOLANTS.map(([name, kind, colour, months]) => sql`(${name}, ${kind}, ${colour}, ${months}::int)`),
    sql`, `,
  );
  const drawings = sql.join(
    loops.map((file, nth) => {
      const { volumeMl, sdMl } = loopVolume(file);
      return sql`(${nth}::int, ${JSON.stringify(file)}::jsonb, ${volumeMl}::float8, ${sdMl}::float8)`;
    }),
    sql`, `,
  );
  const number = sql`split_part(s.name, ' ', 2)::int`;
  return [
    sql`insert into coolant_product (workshop_id, name, coolant_class, colour, form, bottle_ml, sheet_life_months)
      select ${shop}, name, kind, colour, 'ready-mix', 1000, months from (values ${products}) as p (name, kind, colour, months)`,
    sql`insert into owner (workshop_id, name, phone, channel)
      select ${shop}, 'Owner ' || n, '+351 555 ' || lpad(n::text, 6, '0'), 'phone' from generate_series(1, ${Math.ceil(machines / EACH_OWNER)}::int) n`,
    sql`insert into system (workshop_id, owner_id, name, tag, state, hours_per_day)
      select ${shop}, o.id, 'Machine ' || m, 'T-' || m, 'in-service', 2 + m % 9
      from generate_series(1, ${machines}::int) m join owner o on o.name = 'Owner ' || ((m - 1) / ${EACH_OWNER}::int + 1)`,
    sql`insert into loop (workshop_id, system_id, name, coolant_product_id)
      select ${shop}, s.id, 'Main loop', p.id from system s
      join (select id, row_number() over (order by name) - 1 as nth from coolant_product) p on p.nth = ${number} % ${COOLANTS.length}::int`,
    sql`insert into loop_revision (workshop_id, loop_id, number, kind, file, volume_ml, volume_sd_ml, reason, person_id)
      select ${shop}, l.id, 1, 'as-built', d.file, d.volume, d.sd, 'built', ${by} from loop l join system s on s.id = l.system_id
      join (values ${drawings}) as d (nth, file, volume, sd) on d.nth = ${number} % ${loops.length}::int`,
    sql`insert into job (workshop_id, system_id, kind, state, done_on, person_id)
      select ${shop}, s.id, case when k = 0 then 'commissioning' else 'drain-refill' end, 'done',
        ${today}::date - (${FILLS_EACH - 1}::int - k) * ${DAYS_BETWEEN}::int - ${number} % 300, ${by}
      from system s, generate_series(0, ${FILLS_EACH - 1}::int) k`,
    sql`insert into fill (workshop_id, revision_id, job_id, product_id, filled_on, poured_ml)
      select ${shop}, r.id, j.id, l.coolant_product_id, j.done_on, r.volume_ml * 0.97
      from job j join loop l on l.system_id = j.system_id join loop_revision r on r.loop_id = l.id`,
    // dated by the product's own rules afterwards
    sql`insert into due_item (workshop_id, system_id, loop_id, fill_id, kind, due_on, reason, clocks)
      select distinct on (l.id) ${shop}, l.system_id, l.id, f.id, 'coolant-service', f.filled_on + 365, '{"why": "said", "text": ""}', '[]'
      from loop l join loop_revision r on r.loop_id = l.id join fill f on f.revision_id = r.id order by l.id, f.filled_on desc`,
  ];
}
