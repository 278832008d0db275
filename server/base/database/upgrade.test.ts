import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { release1Database } from '../../../tests/golden/release1.js';
import { TestBench, Visitor } from '../../../tests/integration/bench.js';
import { createDatabase, urlOfDatabase } from '../../operations/cluster/cluster.js';
import { migrateDatabase, NewerDatabase } from './migrate.js';

const MIGRATIONS = 'server/base/database/migrations';
const admin = (): string => process.env.LAVACRUM_TEST_DATABASE as string;

async function ask<T extends object>(database: string, query: string): Promise<T[]> {
  const client = new pg.Client({ connectionString: urlOfDatabase(admin(), database) });
  await client.connect();
  try {
    return (await client.query<T>(query)).rows;
  } finally {
    await client.end();
  }
}

interface Today {
  readonly systems: { id: string }[];
}
interface SystemAnswer {
  readonly dues: { reason: { why: string; text?: string; first?: { why: string } } }[];
  readonly jobs: { id: string }[];
  readonly loops: { id: string }[];
}

describe('a workshop that comes from release 1', () => {
  let bench: TestBench;
  let lead: Visitor;
  let name: string;
  let before: { due: number; finding: number; runEvent: number };

  beforeAll(async () => {
    name = await release1Database(admin());
    const [counted] = await ask<typeof before>(
      name,
      'select (select count(*)::int from due_item) as due, (select count(*)::int from finding) as finding, (select count(*)::int from run_event) as "runEvent"',
    );
    before = counted as typeof before;
    await migrateDatabase(urlOfDatabase(admin(), name), MIGRATIONS);
    bench = await TestBench.open({ template: name });
    bench.nowMs = Date.parse('2026-11-26T12:00:00Z');
    lead = new Visitor(bench.url);
    await lead.signIn('lead@fernhollow.example', 'towel-under-joint');
  });
  afterAll(() => bench.close());

  it('keeps every row', async () => {
    expect(before.due).toBeGreaterThan(100);
    expect({
      due: await bench.count('due_item'),
      finding: await bench.count('finding'),
      runEvent: await bench.count('run_event'),
    }).toEqual(before);
  });

  it('reads every page of every machine, and no word of the past is lost', async () => {
    const { body } = await lead.get<Today>('/systems?limit=200');
    expect(body.systems.length).toBeGreaterThan(50);
    for (const { id } of body.systems) {
      const page = await lead.get<SystemAnswer>(`/systems/${id}`);
      expect([id, page.status]).toEqual([id, 200]);
      const history = await lead.history(id);
      expect(history.map(({ text, title }) => `${title} ${text}`).join(' ')).not.toMatch(/undefined|\[object|\{"why/);
      for (const run of history.flatMap(({ runId }) => (runId === null ? [] : [runId]))) {
        expect([run, (await lead.get(`/runs/${run}`)).status]).toEqual([run, 200]);
      }
      for (const each of page.body.jobs) expect((await lead.get(`/jobs/${each.id}`)).status).toBe(200);
      for (const each of page.body.loops) expect((await lead.get(`/loops/${each.id}`)).status).toBe(200);
    }
    for (const path of [
      '/today',
      '/benches',
      '/benches/loops',
      '/instruments',
      '/plan',
      '/store',
      '/waste',
      '/messages',
      '/coolants',
      '/owners',
    ])
      expect([path, (await lead.get(path)).status]).toEqual([path, 200]);
  });

  it('knows which reasons were postponements and which fixes were temporary', async () => {
    const rows = await ask<{ why: string; first: string | null; n: number }>(
      name,
      "select reason->>'why' as why, reason->'first'->>'why' as first, count(*)::int as n from due_item where postponed > 0 or reason->>'why' = 'put-off' group by 1, 2",
    );
    expect(rows.length).toBeGreaterThan(0);
    for (const row of rows) expect(row).toMatchObject({ why: 'put-off', first: 'said' });
    const ended = await ask<{ why: string }>(
      name,
      "select distinct outcome->>'why' as why from due_item where state = 'closed' order by 1",
    );
    expect(ended.map(({ why }) => why)).toEqual(expect.arrayContaining(['filled-anew', 'settled']));
    expect(await ask(name, "select 1 from due_item where (state = 'open') <> (outcome is null)")).toEqual([]);
  });
});

describe('a database of a newer program', () => {
  it('is refused in words, and stays as it is', async () => {
    const name = `newer_${randomUUID().replaceAll('-', '')}`;
    await createDatabase(urlOfDatabase(admin(), 'postgres'), name, 'lavacrum_template');
    await ask(name, "insert into drizzle.__drizzle_migrations (hash, created_at) values ('later', 9999999999999)");
    const refused = migrateDatabase(urlOfDatabase(admin(), name), MIGRATIONS);
    await expect(refused).rejects.toThrow(NewerDatabase);
    await expect(refused).rejects.toThrow('written by a newer Lavacrum');
    await expect(refused).rejects.toThrow('Nothing was changed');
  });
});
