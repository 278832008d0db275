import { say } from '../../../core/base/words/say.js';
import { desc, eq, sql, type SQL } from 'drizzle-orm';
import type { ImportCounts, PastImport, UndoneImport } from '../../../core/workshop/importing/answers.js';
import { importBatch } from '../../base/database/tables/importing.js';
import { person } from '../../base/database/tables/people.js';
import type { Scope } from '../../base/database/client.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import { tellDates } from '../due-dates/writeDates.js';

const SHOWN = 50;

export async function pastImports({ scope }: Ask): Promise<PastImport[]> {
  const rows = await scope
    .select({ batch: importBatch, by: person.name })
    .from(importBatch)
    .innerJoin(person, eq(person.id, importBatch.personId))
    .orderBy(desc(importBatch.createdAt))
    .limit(SHOWN);
  return rows.map(({ batch, by }) => ({
    id: batch.id,
    kind: batch.kind,
    fileName: batch.fileName,
    at: batch.createdAt.toISOString(),
    by,
    counts: batch.counts,
    undoneAt: batch.undoneAt?.toISOString() ?? null,
  }));
}

/**
 * Tables whose rows mean that somebody worked with a machine since it was brought: by its own id, or by its loop's. A test holds this list
 * against the keys of the database, so that a new table cannot be forgotten.
 */
export const WORKED_ON = {
  system: [
    'confirmed_cause',
    'door_entry',
    'finding',
    'fitted_part',
    'kept_file',
    'kept_part',
    'load_reading',
    'log_columns',
    'machine_mark',
    'message',
    'owner_link',
    'owner_report',
    'photo',
    'policy',
    'slot_offer',
  ],
  loop: ['fallout_look', 'fitted_part', 'level_reading', 'loop_contents', 'run', 'service_job'],
  /** of a piece of work that a history brought */
  job: [
    'consent',
    'door_entry',
    'finding',
    'fitted_part',
    'kept_part',
    'machine_mark',
    'message',
    'owner_link',
    'photo',
    'run',
    'service_job',
    'slot',
    'slot_offer',
    'store_move',
    'waste_entry',
  ],
  /** of a coolant that was made with an import */
  product: ['coolant_lot', 'kept_file', 'limit_change', 'service_job'],
} as const;
const inUse = (tables: readonly string[], column: string, of: SQL): SQL =>
  sql.join(
    tables.map((table) => sql`exists (select 1 from ${sql.identifier(table)} t where t.${sql.identifier(column)} = ${of})`),
    sql` or `,
  );

/** Takes back what an import brought. What was worked with since stays, and is named. */
export async function undoImport(ask: Ask): Promise<UndoneImport> {
  const { scope, request, clock } = ask;
  const id = idFrom(request, 'id', 'import');
  const [batch] = await scope.select().from(importBatch).where(eq(importBatch.id, id)).for('update');
  if (!batch) throw notFound('import');
  if (batch.undoneAt) throw new DomainError('refused', say('This import was undone already.'));
  const undone = batch.kind === 'machines' ? await undoMachines(scope, id) : await undoHistory(scope, batch.id, batch.createdAt);
  const coolants = await takeUnused(scope, id);
  await scope.update(importBatch).set({ undoneAt: clock.now() }).where(eq(importBatch.id, id));
  await tellDates(scope);
  return { removed: { ...undone.removed, coolants }, kept: undone.kept };
}

type Undone = { removed: Omit<ImportCounts, 'coolants'>; kept: string[] };

async function undoMachines(scope: Scope, importId: string): Promise<Undone> {
  const byLoop = WORKED_ON.loop.map(
    (table) => sql`exists (select 1 from ${sql.identifier(table)} t join loop l on l.id = t.loop_id where l.system_id = s.id)`,
  );
  const touched = sql.join(
    [
      inUse(WORKED_ON.system, 'system_id', sql`s.id`),
      ...byLoop,
      sql`s.version > 1`,
      sql`exists (select 1 from job j where j.system_id = s.id and j.import_id is distinct from ${importId})`,
      sql`exists (select 1 from usage_reading u where u.system_id = s.id and u.import_id is distinct from ${importId})`,
      sql`exists (select 1 from loop l join loop_revision r on r.loop_id = l.id where l.system_id = s.id and r.kind <> 'stated' and not (s.is_sample and r.number = 1))`,
      sql`exists (select 1 from due_item d where d.system_id = s.id and (d.postponed > 0 or d.state = 'closed'))`,
    ],
    sql` or `,
  );
  const { rows } = await scope.execute<{ id: string; name: string; owner: string; worked: boolean }>(
    sql`select s.id, s.name, o.name as owner, (${touched}) as worked from system s join owner o on o.id = s.owner_id where s.import_id = ${importId} order by s.name`,
  );
  const going = JSON.stringify(rows.filter(({ worked }) => !worked).map(({ id }) => id));
  const systems = sql`(select id::uuid from jsonb_array_elements_text(${going}::jsonb) as t (id))`;
  const loops = sql`(select id from loop where system_id in ${systems})`;
  const revisions = sql`(select id from loop_revision where loop_id in ${loops})`;
  await scope.execute(sql`delete from due_item where system_id in ${systems}`);
  await scope.execute(sql`delete from fill where revision_id in ${revisions}`);
  await scope.execute(sql`delete from job where system_id in ${systems}`);
  await scope.execute(sql`delete from usage_reading where system_id in ${systems}`);
  await scope.execute(sql`delete from tube where revision_id in ${revisions}`);
  await scope.execute(sql`delete from component where revision_id in ${revisions}`);
  await scope.execute(sql`delete from loop_revision where loop_id in ${loops}`);
  await scope.execute(sql`delete from loop where system_id in ${systems}`);
  const gone = await scope.execute(sql`delete from system where id in ${systems}`);
  const owners = await scope.execute(
    sql`delete from owner o where import_id = ${importId} and version = 1 and not exists (select 1 from system s where s.owner_id = o.id)
      and not exists (select 1 from message m where m.owner_id = o.id) and not exists (select 1 from policy p where p.owner_id = o.id)`,
  );
  return {
    removed: { owners: owners.rowCount ?? 0, systems: gone.rowCount ?? 0, works: 0 },
    kept: rows.filter(({ worked }) => worked).map(({ name, owner }) => `${name} (${owner})`),
  };
}

/** Work of a history goes; where its fill gave the date, the date of before it stands again. */
async function undoHistory(scope: Scope, importId: string, at: Date): Promise<Undone> {
  const fills = sql`(select f.id from fill f join job j on j.id = f.job_id where j.import_id = ${importId})`;
  const { rows: closed } = await scope.execute<{ loop_id: string }>(
    sql`delete from due_item where fill_id in ${fills} and state = 'open' and kind = 'coolant-service' returning loop_id`,
  );
  const loops = sql`(select id::uuid from jsonb_array_elements_text(${JSON.stringify(closed.map(({ loop_id }) => loop_id))}::jsonb) as t (id))`;
  await scope.execute(
    sql`update due_item set state = 'open', outcome = null, closed_at = null, closed_by = null, version = version + 1
      where loop_id in ${loops} and state = 'closed' and closed_at = ${at.toISOString()}::timestamptz and outcome ->> 'why' = 'filled-anew'`,
  );
  await scope.execute(sql`update due_item set fill_id = null where fill_id in ${fills}`);
  await scope.execute(sql`delete from fill where id in ${fills}`);
  await scope.execute(sql`
    update loop set coolant_product_id = (select f.product_id from fill f join loop_revision r on r.id = f.revision_id
      where r.loop_id = loop.id order by f.filled_on desc, f.created_at desc limit 1), version = version + 1 where id in ${loops}`);
  // a cleaning or a stirring run counted from a fill that is gone
  await scope.execute(
    sql`delete from due_item d where d.loop_id in ${loops} and d.kind in ('dust-clean', 'stirring') and d.state = 'open' and d.postponed = 0
      and not exists (select 1 from fill f join loop_revision r on r.id = f.revision_id join loop l on l.id = r.loop_id where l.system_id = d.system_id)`,
  );
  const works = await scope.execute(
    sql`delete from job where import_id = ${importId} and not (${inUse(WORKED_ON.job, 'job_id', sql`job.id`)})`,
  );
  return { removed: { owners: 0, systems: 0, works: works.rowCount ?? 0 }, kept: [] };
}

/** Coolants that were made with the import and that nothing uses. */
async function takeUnused(scope: Scope, importId: string): Promise<number> {
  const used = sql`${inUse(['fill', 'coolant_lot', 'limit_change', 'service_job'], 'product_id', sql`p.id`)} or ${inUse(['kept_file'], 'coolant_product_id', sql`p.id`)}`;
  const gone = await scope.execute(
    sql`delete from coolant_product p where import_id = ${importId} and version = 1 and not (${used})
      and not exists (select 1 from loop l where l.coolant_product_id = p.id or l.came_filled ->> 'productId' = p.id::text)`,
  );
  return gone.rowCount ?? 0;
}
