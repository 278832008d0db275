import { getTableColumns, sql } from 'drizzle-orm';
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core';
import type { ImportCounts, ImportedDates } from '../../../core/workshop/importing/answers.js';
import type { ImportInput } from '../../../core/workshop/importing/schema.js';
import { dueState } from '../../../core/workshop/due-dates/due.js';
import { importBatch } from '../../base/database/tables/importing.js';
import type { Scope } from '../../base/database/client.js';
import type { Ask } from '../../base/http/context.js';

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

type Row = Readonly<Record<string, unknown>>;

/**
 * Writes many rows of several tables, each as one document: thousands of parameters cost more than the rows. While the database takes one table
 * the rows of the next are made, so that neither waits for the other. Columns that no row names keep their defaults.
 */
export class TableWriter {
  private sent: Promise<unknown> = Promise.resolve();

  constructor(private readonly scope: Scope) {}

  /**
   * @param same what is alike in all rows
   * @param rowOf null: nothing is written for it
   */
  async add<Table extends PgTable, Same extends Partial<Table['$inferInsert']>, Item>(
    table: Table,
    same: Same,
    items: readonly Item[],
    rowOf: (item: Item) => Omit<Table['$inferInsert'], keyof Same> | null,
  ): Promise<void> {
    const columns: Readonly<Record<string, PgColumn>> = getTableColumns(table);
    const columnOf = (key: string): PgColumn => columns[key] as PgColumn;
    const named = new Set<string>();
    const rows: string[] = [];
    for (const [at, item] of items.entries()) {
      const row = rowOf(item) as Row | null;
      if (row) {
        const given = Object.entries(row).filter(([, value]) => value !== undefined);
        for (const [key] of given) named.add(key);
        rows.push(JSON.stringify(Object.fromEntries(given.map(([key, value]) => [columnOf(key).name, value]))));
      }
      await inTurn(at + 1);
    }
    if (rows.length === 0) return;
    const alike = Object.entries(same as Row).filter(([, value]) => value !== undefined);
    const names = [...alike.map(([key]) => key), ...named].map((key) => sql.identifier(columnOf(key).name));
    const values = [
      ...alike.map(([key, value]) => sql`${value instanceof Date ? value.toISOString() : value}::${sql.raw(columnOf(key).getSQLType())}`),
      ...[...named].map((key) => sql.identifier(columnOf(key).name)),
    ];
    await this.sent;
    const statement = sql`insert into ${table} (${sql.join(names, sql`, `)}) select ${sql.join(values, sql`, `)} from json_populate_recordset(null::${table}, ${`[${rows.join(',')}]`}::json)`;
    // a statement is sent whenever somebody waits for it: here, once
    this.sent = Promise.resolve(this.scope.execute(statement));
    // whoever writes next, or ends, hears of it
    this.sent.catch(() => undefined);
  }

  /** All of it is there. */
  async end(): Promise<void> {
    await this.sent;
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
