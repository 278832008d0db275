import pg from 'pg';
import PgBoss from 'pg-boss';
import { DOOR_ROLE, SERVER_ROLE } from './client.js';

/** Owner and server speak of the queue's tables by this schema. */
const QUEUE_SCHEMA = 'pgboss';

/**
 * Makes the roles of the whole cluster. Another database of it may have made them already, another server may make them
 * at this moment.
 */
export async function makeRoles(client: pg.ClientBase): Promise<void> {
  for (const role of ['lavacrum_app', DOOR_ROLE, SERVER_ROLE])
    await client.query(`do $$ begin
      create role ${role} nologin noinherit;
    exception when duplicate_object or unique_violation then null;
    end $$`);
  const { rows } = await client.query<{ missing: string }>(
    `select format('grant %I to %I', role, member) as missing from (values ('lavacrum_app', '${SERVER_ROLE}'), ('${DOOR_ROLE}', '${SERVER_ROLE}'), ('lavacrum_app', current_user), ('${DOOR_ROLE}', current_user), ('${SERVER_ROLE}', current_user)) wanted (role, member)
     where not exists (select 1 from pg_auth_members m where m.roleid = role::regrole and m.member = wanted.member::regrole)`,
  );
  // two servers may grant at the same moment: what is there by then is what was wanted
  for (const { missing } of rows) await client.query(missing).catch(swallow(['23505', 'XX000']));
}

const swallow =
  (codes: readonly string[]) =>
  (error: unknown): void => {
    if (!codes.includes((error as { code?: string }).code ?? '')) throw error;
  };

/** What requests may do with tables that a later change adds. Not part of a dump: it names the owner. */
export const grantToCome = (client: pg.ClientBase): Promise<unknown> =>
  client.query('alter default privileges in schema public grant select, insert, update, delete on tables to lavacrum_app');

/** Lets the server sign in by itself: neither superuser nor owner. For a cluster of our own, whose superuser asks. */
export async function allowServer(client: pg.ClientBase, password: string): Promise<void> {
  await makeRoles(client);
  const attributes = 'login noinherit nosuperuser nocreatedb nocreaterole nobypassrls';
  await client.query(`alter role ${SERVER_ROLE} ${attributes} password ${pg.escapeLiteral(password)}`);
}

/** Row policies that bind the tables' owner too, or, while tables change, that do not: what a migration moves belongs to every workshop. */
export async function forcePolicies(client: pg.ClientBase, force: boolean): Promise<void> {
  const { rows } = await client.query<{ name: string }>(
    `select format('%I.%I', n.nspname, c.relname) as name from pg_class c join pg_namespace n on n.oid = c.relnamespace
     where n.nspname = 'public' and c.relkind = 'r' and c.relrowsecurity and c.relname <> 'search_text' and c.relforcerowsecurity <> $1`,
    [force],
  );
  for (const { name } of rows) await client.query(`alter table ${name} ${force ? '' : 'no '}force row level security`);
}

/** The queue's tables belong to the server, which keeps them: made by the owner, since nobody else may make a schema. */
export async function handQueueOver(client: pg.ClientBase): Promise<void> {
  const { rows } = await client.query<{ made: string | null }>(`select to_regclass('${QUEUE_SCHEMA}.version') as made`);
  if (!rows[0]?.made) await client.query(PgBoss.getConstructionPlans(QUEUE_SCHEMA));
  const { rows: foreign } = await client.query<{ change: string }>(
    `with queue as (select oid from pg_namespace where nspname = $1), server as (select oid from pg_roles where rolname = $2)
     select format('schema %I', nspname) as change from pg_namespace where oid in (table queue) and nspowner not in (table server)
     union all select format('%s %s', case c.relkind when 'S' then 'sequence' else 'table' end, c.oid::regclass) from pg_class c
       where c.relnamespace in (table queue) and c.relkind in ('r', 'p', 'S') and c.relowner not in (table server)
     union all select format('function %s', oid::regprocedure) from pg_proc where pronamespace in (table queue) and proowner not in (table server)
     union all select format('type %s', oid::regtype) from pg_type where typnamespace in (table queue) and typtype = 'e' and typowner not in (table server)`,
    [QUEUE_SCHEMA, SERVER_ROLE],
  );
  for (const { change } of foreign) await client.query(`alter ${change} owner to ${SERVER_ROLE}`);
}
