import { sql } from 'drizzle-orm';
import { customType, pgPolicy, pgRole, timestamp, unique, uuid, type AnyPgColumn, type PgTableExtraConfigValue } from 'drizzle-orm/pg-core';

/** The role every request works as: no owner, no superuser, so that row policies bind it. Made by the first migration. */
export const appRole = pgRole('lavacrum_app').existing();

/** What the server works as outside a workshop: it finds the account that signs in, and little else. Made by a migration. */
export const serverRole = pgRole('lavacrum_server').existing();

/** What a visitor at the owner’s door works as: it sees what hangs on one link, column by column. Made beside the others. */
export const doorRole = pgRole('lavacrum_door').existing();

export const instant = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });

/**
 * A stored document. It is read by its reader, which upgrades what an older program wrote: never by a cast.
 * @param read gets what the database holds
 */
export const stored = <T>(name: string, read: (raw: unknown) => T) =>
  customType<{ data: T; driverData: unknown }>({
    dataType: () => 'jsonb',
    toDriver: (value) => JSON.stringify(value),
    fromDriver: read,
  })(name);

/** Columns of every row that belongs to a workshop. */
export const owned = {
  id: uuid('id').primaryKey().defaultRandom(),
  workshopId: uuid('workshop_id').notNull(),
  createdAt: instant('created_at').notNull().defaultNow(),
};

/** Bytes as they are: pictures, files. */
export const bytes = customType<{ data: Buffer }>({ dataType: () => 'bytea' });

/** The workshop that a piece of work is in; null outside of one. As a query of its own it is asked once a statement, not once a row. */
export const ownWorkshop = sql`(select nullif(current_setting('lavacrum.workshop', true), '')::uuid)`;

/**
 * Two walls between workshops: a policy that hides foreign rows, and a key over (workshop, id) that children refer to,
 * so that a row of one workshop cannot even point at a row of another.
 */
export function tenantWalls(table: string, columns: { id: AnyPgColumn; workshopId: AnyPgColumn }): PgTableExtraConfigValue[] {
  const own = sql`workshop_id = ${ownWorkshop}`;
  return [
    unique(`${table}_tenant_key`).on(columns.workshopId as never, columns.id as never),
    pgPolicy(`${table}_own_workshop`, { for: 'all', to: appRole, using: own, withCheck: own }),
  ];
}
