import pg from 'pg';

/** What a table holds: rows, and a sum over the hashes of all of them, whatever their order. */
export interface TableFingerprint {
  readonly rows: number;
  readonly hash: string;
}
export type Fingerprints = Readonly<Record<string, TableFingerprint>>;

/** A row as text must not depend on who asks. */
const SETTINGS =
  "set time zone 'UTC'; set datestyle = 'ISO'; set intervalstyle = 'postgres'; set extra_float_digits = 1; set bytea_output = 'hex'; set row_security = off";

/**
 * Fingerprints of every table of the application. The sum of two halves of each row's MD5 as numbers: no order, no memory
 * for a sorted list, and a row more, less or changed shows.
 * @param client sees past row policies: a superuser, or a login with BYPASSRLS
 */
export async function fingerprintsOf(client: pg.ClientBase): Promise<Fingerprints> {
  await client.query(SETTINGS);
  const { rows: tables } = await client.query<{ name: string }>(
    "select tablename as name from pg_tables where schemaname = 'public' and tablename <> 'session' order by 1",
  );
  const found: Record<string, TableFingerprint> = {};
  for (const { name } of tables) {
    const half = (from: number): string => `coalesce(sum(('x' || substr(hash, ${from}, 16))::bit(64)::bigint::numeric), 0)`;
    const { rows } = await client.query<{ n: string; hash: string }>(
      `select count(*) as n, ${half(1)}::text || ':' || ${half(17)}::text as hash from (select md5(t::text) as hash from public.${pg.escapeIdentifier(name)} t) hashes`,
    );
    found[name] = { rows: Number(rows[0]?.n), hash: rows[0]?.hash ?? '' };
  }
  return found;
}

/** In words, what of a restored database is not as it was; empty: every row is there. */
export function differences(wanted: Fingerprints, found: Fingerprints): string[] {
  const names = [...new Set([...Object.keys(wanted), ...Object.keys(found)])].sort();
  return names.flatMap((name) => {
    const [a, b] = [wanted[name], found[name]];
    if (!a) return [`${name} is not in the backup`];
    if (!b) return [`${name} is missing`];
    if (a.rows !== b.rows) return [`${name} has ${b.rows} rows, the backup says ${a.rows}`];
    return a.hash === b.hash ? [] : [`${name} has ${b.rows} rows, but not the same ones`];
  });
}
