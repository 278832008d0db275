import { getTableColumns, sql } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';
import type { ImportCounts, ImportedDates } from '../../../core/workshop/importing/answers.js';
import type { ImportInput } from '../../../core/workshop/importing/schema.js';
import { dueState } from '../../../core/workshop/due-dates/due.js';
import { importBatch } from '../../base/database/tables/importing.js';
import type { Scope } from '../../base/database/client.js';
import type { Ask } from '../../base/http/context.js';

/** rows of one insert */
const CHUNK = 5000;
/** rows of a table that are worked on before others are served */
const AT_ONCE = 100;

/** Lets others be served now and then: a long table must not keep the server from everybody else. */
export const inTurn = async (done: number): Promise<void> => {
  if (done % AT_ONCE === 0) await new Promise((resolve) => setImmediate(resolve));
};

export async function readRows(rows: ImportInput['rows'], read: (line: number, cells: readonly string[]) => void): Promise<void> {
  for (const [index, cells] of rows.entries()) {
    read(index + 2, cells);
    await inTurn(index + 1);
  }
}

/**
 * Writes many rows, a chunk as one document: thousands of parameters cost more than the rows. Columns that no row names keep their defaults.
 */
export async function insertAll<Table extends PgTable>(scope: Scope, table: Table, rows: readonly Table['$inferInsert'][]): Promise<void> {
  if (rows.length === 0) return;
  const columns = getTableColumns(table);
  const used = Object.entries(columns).filter(([key]) => rows.some((row) => (row as Record<string, unknown>)[key] !== undefined));
  const names = sql.join(
    used.map(([, column]) => sql.identifier(column.name)),
    sql`, `,
  );
  for (let from = 0; from < rows.length; from += CHUNK) {
    const chunk = rows
      .slice(from, from + CHUNK)
      .map((row) => Object.fromEntries(used.map(([key, column]) => [column.name, (row as Record<string, unknown>)[key] ?? null])));
    await scope.execute(sql`insert into ${table} (${names}) select ${names} from json_populate_recordset(null::${table}, ${JSON.stringify(chunk)}::json)`); // prettier-ignore
  }
}

/** Its row goes before everything that it makes. */
export async function openBatch(
  ask: Ask,
  input: Pick<ImportInput, 'kind' | 'fileName'>,
  counts: ImportCounts,
): Promise<{ id: string; at: Date }> {
  const at = ask.clock.now();
  const [made] = await ask.scope
    .insert(importBatch)
    .values({
      workshopId: ask.account.workshopId,
      personId: ask.account.personId,
      createdAt: at,
      kind: input.kind,
      fileName: input.fileName,
      counts,
    })
    .returning({ id: importBatch.id });
  return { id: (made as { id: string }).id, at };
}

/** @param dueOn the day of each machine; null: none */
export function countDates(dueOn: readonly (string | null)[], today: string): ImportedDates {
  const counts = { overdue: 0, soon: 0, later: 0, none: 0 };
  for (const day of dueOn) counts[day === null ? 'none' : dueState(day, today)] += 1;
  return counts;
}
