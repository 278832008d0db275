import { usualLoop } from '../core/machine/catalogue/testLoops.js';
import pg from 'pg';
import { createWorkshop } from '../server/workshop/people/workshop.js';
import { inWorkshop, openDatabase, openPool } from '../server/base/database/client.js';
import { setPolicy } from '../server/workshop/due-dates/policies.js';
import { redate } from '../server/workshop/due-dates/redate.js';
import { inOwnDatabase } from './ownDatabase.js';

export interface ServerDates {
  readonly systems: number;
  /** ms to read, compute and write every date after a change of policy that moves them all */
  readonly allMs: number;
  readonly moved: number;
  /** ms for the night's look at everything where nothing moves */
  readonly nothingMs: number;
  /** ms after one machine changed */
  readonly oneMs: number;
}

/** Many machines in a database of their own, dated by the server's own code. Rows are made by SQL: that part is not measured. */
export async function datesOnServer(systems: number): Promise<ServerDates> {
  return inOwnDatabase(async ({ url }) => {
    const pool = openPool(url, () => undefined);
    const database = openDatabase(pool);
    const { workshopId, personId } = await database.transaction((scope) =>
      createWorkshop(scope, {
        workshopName: 'Bench',
        timeZone: 'UTC',
        personName: 'Lead',
        email: 'lead@bench.example',
        passwordHash: 'none',
      }),
    );
    // rows of a workshop are no business of the server's narrow role
    const owner = new pg.Pool({ connectionString: url });
    await owner.query(ROWS.replaceAll('$SYSTEMS', String(systems)).replaceAll('$WORKSHOP', `'${workshopId}'`).replaceAll('$PERSON', `'${personId}'`).replaceAll('$FILE', `'${JSON.stringify(usualLoop()).replaceAll("'", "''")}'`)); // prettier-ignore
    await owner.query('analyze');
    const timed = async (cause: Parameters<typeof redate>[1]): Promise<{ ms: number; moved: number }> => {
      const start = performance.now();
      const moved = await inWorkshop(database, workshopId, (scope) => redate(scope, cause));
      return { ms: performance.now() - start, moved: moved.length };
    };
    await timed({ everything: true });
    await inWorkshop(database, workshopId, (scope) => setPolicy(scope, workshopId, {}, 'six-months'));
    const all = await timed({ everything: true });
    const nothing = await timed({ everything: true });
    const { rows } = await owner.query<{ id: string }>('select id from system limit 1');
    const one = await timed({ systemId: (rows[0] as { id: string }).id });
    await Promise.all([pool.end(), owner.end()]);
    return { systems, allMs: all.ms, moved: all.moved, nothingMs: nothing.ms, oneMs: one.ms };
  });
}

const ROWS = `
with product as (
  insert into coolant_product (workshop_id, name, coolant_class, colour, form, bottle_ml, sheet_life_months)
  values ($WORKSHOP, 'Clear', 'clear', '#7fb8c9', 'ready-mix', 1000, 24) returning id),
owner as (
  insert into owner (workshop_id, name, channel) select $WORKSHOP, 'Owner ' || n, 'phone' from generate_series(1, $SYSTEMS / 10) n returning id),
numbered as (select id, row_number() over () as n from owner),
machine as (
  insert into system (workshop_id, owner_id, name, state, hours_per_day)
  select $WORKSHOP, numbered.id, 'Machine ' || n.n, 'in-service', 4 from generate_series(1, $SYSTEMS) n join numbered on numbered.n = 1 + n.n % ($SYSTEMS / 10)
  returning id),
ring as (insert into loop (workshop_id, system_id, name) select $WORKSHOP, id, 'Main loop' from machine returning id, system_id),
revision as (
  insert into loop_revision (workshop_id, loop_id, number, kind, file, volume_ml, volume_sd_ml, reason, person_id)
  select $WORKSHOP, ring.id, 1, 'as-built', $FILE::jsonb, 800, 20, 'built', $PERSON from ring returning id, loop_id),
work as (
  insert into job (workshop_id, system_id, kind, state, done_on, person_id)
  select $WORKSHOP, system_id, 'commissioning', 'done', '2026-01-10', $PERSON from ring returning id, system_id),
filled as (
  insert into fill (workshop_id, revision_id, job_id, product_id, filled_on, poured_ml)
  select $WORKSHOP, revision.id, work.id, product.id, date '2026-01-10' + (random() * 200)::int, 800
  from revision join ring on ring.id = revision.loop_id join work on work.system_id = ring.system_id, product returning id, revision_id),
meter as (
  insert into usage_reading (workshop_id, system_id, source, read_on, hours, person_id)
  select $WORKSHOP, id, 'meter', date '2026-01-10' + 40 * k, 200 * k, $PERSON from machine, generate_series(1, 2) k),
dust as (
  insert into due_item (workshop_id, system_id, loop_id, kind, since_on, due_on, reason, clocks)
  select $WORKSHOP, system_id, id, 'dust-clean', '2026-01-10', '2026-07-10', '{"why": "said", "text": "dust"}', '[]' from ring)
insert into due_item (workshop_id, system_id, loop_id, fill_id, kind, due_on, reason, clocks)
select $WORKSHOP, ring.system_id, ring.id, filled.id, 'coolant-service', '2027-01-10', '{"why": "said", "text": "first"}', '[]'
from filled join revision on revision.id = filled.revision_id join ring on ring.id = revision.loop_id`;
