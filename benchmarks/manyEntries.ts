import { cpSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { pino } from 'pino';
import { buildProcedure } from '../core/bench/procedures/buildProcedure.js';
import { usualLoop } from '../core/machine/catalogue/testLoops.js';
import { DEFAULT_SCHOOLS } from '../core/physics/leak-testing/schools.js';
import { foldOf } from '../server/bench/runs/folds.js';
import { inWorkshop, openDatabase, openPool, withClient } from '../server/base/database/client.js';
import { migrateDatabase } from '../server/base/database/migrate.js';
import { inOwnDatabase, MIGRATIONS, milliseconds } from './ownDatabase.js';
import { NightlyWork } from '../server/operations/nightly/nightly.js';
import { redate } from '../server/workshop/due-dates/redate.js';
import { freshenLines } from '../server/workshop/machine-list/freshLines.js';

/** A workshop of one size: a tenth and the whole of it are measured, and what takes ten times as long is linear. */
export interface ManyFigures {
  readonly entries: number;
  readonly machines: number;
  /** ms: the log of one run of a thousand entries, read and played */
  readonly replayMs: number;
  /** ms: the night's work of the workshop, letters apart */
  readonly nightMs: number;
  /** ms: every date looked at again */
  readonly redateMs: number;
  /** ms: from the tables of the release before lists were pages to today's */
  readonly migrateMs: number;
}

/** the last change of tables before texts were searched by their trigrams, whose upgrade looks at every entry */
const BEFORE = 57;
const ENTRIES_EACH = 1000;

/** The migrations up to one, in a folder of their own. */
function migrationsUpTo(last: number, root: string): string {
  const folder = path.join(root, 'migrations');
  cpSync(MIGRATIONS, folder, { recursive: true });
  const file = path.join(folder, 'meta', '_journal.json');
  const journal = JSON.parse(readFileSync(file, 'utf8')) as { entries: { idx: number }[] };
  writeFileSync(file, JSON.stringify({ ...journal, entries: journal.entries.filter(({ idx }) => idx <= last) }));
  return folder;
}

/** Machines with a fill and its date, and runs with long logs: every tenth entry is a note. */
const rows = (machines: number, runs: number): string => {
  const file = JSON.stringify(usualLoop()).replaceAll("'", "''");
  const procedure = JSON.stringify(buildProcedure({ loop: usualLoop(), schools: DEFAULT_SCHOOLS, order: { bottles: 2 }, coolantName: 'Clear' })).replaceAll("'", "''"); // prettier-ignore
  return `
  insert into workshop (name, time_zone, schools) values ('Bench', 'UTC', '${JSON.stringify(DEFAULT_SCHOOLS)}'::jsonb);
  insert into person (workshop_id, name, email, password_hash, role) select id, 'Lead', 'lead@bench.example', 'none', 'lead' from workshop;
  insert into coolant_product (workshop_id, name, coolant_class, colour, form, bottle_ml, sheet_life_months) select id, 'Clear', 'clear', '#7fb8c9', 'ready-mix', 1000, 24 from workshop;
  insert into owner (workshop_id, name, channel) select id, 'Owner ' || n, 'phone' from workshop, generate_series(1, ${machines / 10}) n;
  insert into system (workshop_id, owner_id, name, state, hours_per_day) select o.workshop_id, o.id, 'Machine ' || split_part(o.name, ' ', 2) || '-' || k, 'in-service', 4 from owner o, generate_series(1, 10) k;
  insert into loop (workshop_id, system_id, name) select workshop_id, id, 'Main loop' from system;
  insert into loop_revision (workshop_id, loop_id, number, kind, file, volume_ml, volume_sd_ml, reason, person_id)
    select workshop_id, id, 1, 'as-built', '${file}'::jsonb, 800, 20, 'built', (select id from person) from loop;
  insert into job (workshop_id, system_id, kind, state, done_on, person_id) select workshop_id, id, 'commissioning', 'done', '2026-01-10', (select id from person) from system;
  insert into fill (workshop_id, revision_id, job_id, product_id, filled_on, poured_ml)
    select r.workshop_id, r.id, j.id, (select id from coolant_product), '2026-01-10', 790 from loop_revision r join loop l on l.id = r.loop_id join job j on j.system_id = l.system_id;
  insert into due_item (workshop_id, system_id, loop_id, fill_id, kind, due_on, reason, clocks)
    select l.workshop_id, l.system_id, l.id, f.id, 'coolant-service', '2027-01-10', '{"why": "said", "text": ""}', '[]' from loop l join loop_revision r on r.loop_id = l.id join fill f on f.revision_id = r.id;
  insert into run (workshop_id, job_id, loop_id, revision_id, procedure, state, started_at, signed_off_at, person_id)
    select l.workshop_id, j.id, l.id, r.id, '${procedure}'::jsonb, 'signed-off', '2026-01-10 09:00Z', '2026-01-10 15:00Z', r.person_id
    from (select * from loop order by id limit ${runs}) l join loop_revision r on r.loop_id = l.id join job j on j.system_id = l.system_id;
  insert into run_event (workshop_id, run_id, seq, happened_at, person_id, body)
    select r.workshop_id, r.id, n, timestamptz '2026-01-10 09:00Z' + n * interval '20 seconds', r.person_id,
      case when n % 10 = 0 then jsonb_build_object('type', 'note', 'step', 'kit', 'text', 'looked at joint ' || n) else jsonb_build_object('type', 'dry-reading', 'gaugeKpa', 50 - n / 1e5, 'tempC', 20) end
    from run r, generate_series(1, ${ENTRIES_EACH}) n;`;
};

export async function manyFigures(entries: number, machines: number): Promise<ManyFigures> {
  return inOwnDatabase(
    async ({ url }) => {
      await withClient(url, async (client) => {
        await client.query(rows(machines, entries / ENTRIES_EACH));
        await client.query('vacuum analyze');
      });
      const migrateMs = await milliseconds(() => migrateDatabase(url, MIGRATIONS));
      await withClient(url, (client) => client.query('vacuum analyze'));
      const pool = openPool(url, () => undefined, { max: 4, patient: true });
      const database = openDatabase(pool);
      const { workshopId, runId } = await withClient(url, async (client) => {
        const found = await client.query<{ workshop: string; run: string }>('select workshop_id as workshop, id as run from run limit 1');
        const row = found.rows[0] as { workshop: string; run: string };
        return { workshopId: row.workshop, runId: row.run };
      });
      const now = new Date('2026-06-01T03:15:00Z');
      // the first reader works out every line: that belongs to the upgrade
      const firstMs = await milliseconds(() => inWorkshop(database, workshopId, (scope) => freshenLines({ scope, today: '2026-06-01' })));
      const replayMs = await milliseconds(() => inWorkshop(database, workshopId, (scope) => foldOf(scope, runId)));
      const night = new NightlyWork({ databaseUrl: url, smtpUrl: null, sender: 'desk@bench.example' }, database, { now: () => now }, pino({ level: 'silent' })); // prettier-ignore
      const nightMs = await milliseconds(() => night.redateWorkshop(workshopId));
      const redateMs = await milliseconds(() => inWorkshop(database, workshopId, (scope) => redate(scope, { everything: true })));
      await pool.end();
      return { entries, machines, replayMs, nightMs, redateMs, migrateMs: migrateMs + firstMs };
    },
    (root) => migrationsUpTo(BEFORE, root),
  );
}
