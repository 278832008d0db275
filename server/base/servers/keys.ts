import { randomBytes } from 'node:crypto';
import { sql } from 'drizzle-orm';
import type { Database, Scope } from '../database/client.js';

/** s from the making of a key until it signs: every server has looked a dozen times by then */
const SIGNS_AFTER_S = 60;
/** days that a key signs; then the night makes a new one */
const SIGNS_DAYS = 30;
/** days that a key verifies: the month in which it signs, and as long as what it signed counts (devices that are known: half a year) */
const KEPT_DAYS = SIGNS_DAYS + 190;

/** Work on the keys that no other server does at the same moment. */
const withKeys = <T>(database: Database, work: (scope: Scope) => Promise<T>): Promise<T> =>
  database.transaction(async (scope) => {
    await scope.execute(sql`lock table server.secret in share row exclusive mode`);
    return work(scope);
  });

/** A first key where there is none; of several servers that begin at once, one makes it. */
export const firstKey = (database: Database, oldSecret: string | null): Promise<unknown> =>
  withKeys(database, (scope) =>
    scope.execute(sql`
      insert into server.secret (value, signs_from) select ${oldSecret ?? newKey()}, now() where not exists (select 1 from server.secret)`),
  );

const newKey = (): string => randomBytes(32).toString('base64url');

/** Keys that count, the one that signs first, then those to come, then the older ones. */
export async function readKeys(database: Database): Promise<readonly string[]> {
  const { rows } = await database.execute<{ value: string; signs: boolean }>(
    sql`select value, signs_from <= now() as signs from server.secret order by id desc`,
  );
  const signing = rows.find(({ signs }) => signs) ?? rows[0];
  return signing ? [signing.value, ...rows.filter((row) => row !== signing).map(({ value }) => value)] : [];
}

/** The night's part: a key that has signed for a month is followed by a new one; what nothing was signed with for long goes. @returns whether a new one was made */
export async function renewKeys(database: Database): Promise<boolean> {
  return withKeys(database, async (scope) => {
    const { rowCount } = await scope.execute(sql`
      insert into server.secret (value, signs_from)
      select ${newKey()}, now() + make_interval(secs => ${SIGNS_AFTER_S})
      where not exists (select 1 from server.secret where signs_from > now() - make_interval(days => ${SIGNS_DAYS}))
        and exists (select 1 from server.secret)`);
    await scope.execute(sql`
      delete from server.secret where signs_from < now() - make_interval(days => ${KEPT_DAYS}) and id < (select max(id) from server.secret)`);
    return rowCount === 1;
  });
}

/**
 * A new key by hand. @param leaked the old ones may be in wrong hands: they count no more, and everybody signs in anew, on every server
 * within seconds; without it nobody notices.
 */
export async function changeKey(database: Database, leaked: boolean): Promise<void> {
  await withKeys(database, async (scope) => {
    if (leaked) {
      await scope.execute(sql`delete from server.secret`);
      await scope.execute(sql`delete from session`);
    }
    await scope.execute(sql`
      insert into server.secret (value, signs_from) values (${newKey()}, now() + make_interval(secs => ${leaked ? 0 : SIGNS_AFTER_S}))`);
  });
}
