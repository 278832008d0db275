import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
let lead: Visitor;
beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('Roles');
});
afterAll(() => bench.close());

describe('the server’s own role', () => {
  const asServer = (query: string) => bench.serverPool.query<Record<string, unknown>>(query);

  it('is neither superuser nor owner, and cannot pass by a policy', async () => {
    const { rows } = await asServer(
      'select current_user as name, rolsuper, rolbypassrls, rolcreaterole, rolcreatedb from pg_roles where rolname = session_user',
    );
    expect(rows).toEqual([{ name: 'lavacrum_server', rolsuper: false, rolbypassrls: false, rolcreaterole: false, rolcreatedb: false }]);
    const owned = await asServer("select 1 from pg_tables where schemaname = 'public' and tableowner = current_user");
    expect(owned.rowCount).toBe(0);
  });

  it('finds the account that signs in and the workshops there are, and reads no other table or column', async () => {
    expect((await asServer('select email, password_hash from person')).rowCount).toBe(1);
    expect((await asServer('select name from workshop')).rowCount).toBe(1);
    const { rows: tables } = await bench.pool.query<{ name: string }>(
      "select tablename as name from pg_tables where schemaname = 'public'",
    );
    for (const { name } of tables.filter(({ name: each }) => each !== 'session'))
      await expect(asServer(`select * from ${name}`), name).rejects.toMatchObject({ code: '42501' });
    await expect(asServer('update person set active = true')).rejects.toMatchObject({ code: '42501' });
    await expect(asServer('delete from workshop')).rejects.toMatchObject({ code: '42501' });
    await expect(asServer('set role postgres')).rejects.toThrow();
  });

  it('is bound by policies of every table, and so is the tables’ owner', async () => {
    const { rows } = await bench.pool.query(
      "select relname from pg_class c join pg_namespace n on n.oid = c.relnamespace where n.nspname = 'public' and c.relkind = 'r' and relname <> 'session' and not (relrowsecurity and relforcerowsecurity)",
    );
    // no request reads it: it is asked through a function that knows its workshop, past a policy that keeps its index from being used
    expect(rows).toEqual([{ relname: 'search_text' }]);
    expect(
      (
        await bench.pool.query(
          "select 1 from information_schema.role_table_grants where table_name = 'search_text' and grantee = 'lavacrum_app'",
        )
      ).rowCount,
    ).toBe(0);
  });

  it('keeps the queue’s tables itself', async () => {
    const { rows } = await bench.pool.query("select distinct tableowner as owner from pg_tables where schemaname = 'pgboss'");
    expect(rows).toEqual([{ owner: 'lavacrum_server' }]);
  });
});

describe('a row that somebody keeps locked', () => {
  it('turns away who waits for it, in words, and leaves the others alone', async () => {
    const [ownerId, another] = [await lead.owner('Held'), await lead.owner('Free')];
    const other = await bench.workshop('Neighbour');
    const edit = (id: string) =>
      lead.put(`/owners/${id}`, { name: 'Ada', email: null, phone: null, channel: 'phone', note: '', policy: null, version: 1 });
    const holder = await bench.pool.connect();
    try {
      await holder.query('begin');
      await holder.query('select 1 from owner where id = $1 for update', [ownerId]);
      // more requests than the pool has connections wait; everybody else is served meanwhile
      const waiting = Array.from({ length: 30 }, () => edit(ownerId));
      expect((await other.get('/systems')).status).toBe(200);
      expect((await lead.get('/systems')).status).toBe(200);
      expect((await edit(another)).status).toBe(200);
      const first = await Promise.race(waiting);
      expect([first.status, errorOf(first).code, errorOf(first).message]).toEqual([503, 'busy', expect.stringContaining('try again')]);
      await holder.query('rollback');
      const statuses = (await Promise.all(waiting)).map(({ status }) => status);
      expect(statuses.filter((status) => status === 200)).toHaveLength(1);
      expect(statuses.every((status) => [200, 409, 503].includes(status))).toBe(true);
    } finally {
      await holder.query('rollback');
      holder.release();
    }
  });
});
