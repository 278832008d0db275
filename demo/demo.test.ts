import { randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import { restoreBackup } from '../server/operations/backup/archive.js';
import { createDatabase, urlOfDatabase } from '../server/operations/cluster/cluster.js';
import { RunFold } from '../core/bench/runs/replay.js';
import type { RunEventBody } from '../core/bench/runs/entries/all.js';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DEMO_SIGN_IN } from './people.js';
import { seedDemo } from './seed.js';
import type { LivesAnswer } from '../core/workshop/learned-lives/answers.js';
import { conditionOf, type PartCondition } from '../core/physics/condition/series.js';
import type { ConditionPage } from '../core/workshop/logs/answers.js';
import { refuseEntry } from '../core/bench/runs/rules.js';
import type { Procedure } from '../core/bench/runs/procedure.js';
import { readLoopFile } from '../core/machine/loop-file/loopFileSchema.js';
import { TestBench, Visitor } from '../tests/integration/bench.js';

/** Name of a database with the demo that this very test run has written before; null: there is none, it is written here. */
async function writtenDemo(): Promise<string | null> {
  const file = process.env.LAVACRUM_TEST_DEMO_FILE;
  if (!file || !existsSync(file)) return null;
  const admin = process.env.LAVACRUM_TEST_DATABASE as string;
  const name = `demo_${randomUUID().replaceAll('-', '')}`;
  const ownerUrl = urlOfDatabase(admin, name);
  await createDatabase(urlOfDatabase(admin, 'postgres'), name, 'template0');
  await restoreBackup({ ownerUrl, file, replace: false, migrations: 'server/base/database/migrations', now: new Date() });
  return name;
}

let bench: TestBench;
let visitor: Visitor;
const clock = { now: () => new Date(bench.nowMs) };
beforeAll(async () => {
  const template = await writtenDemo();
  bench = await TestBench.open(template === null ? {} : { template });
  // the demo that a whole test has written already ends today
  if (template === null) expect(await seedDemo(bench.database, clock)).toBe(true);
  else bench.nowMs = Date.now();
  visitor = new Visitor(bench.url);
  await visitor.signIn(DEMO_SIGN_IN.email, DEMO_SIGN_IN.password);
});
afterAll(() => bench.close());

interface Line {
  id: string;
  name: string;
  attention: string;
  filledOn: string | null;
}
const lines = async (): Promise<Line[]> => (await visitor.get<{ systems: Line[] }>('/systems?limit=200')).body.systems;

describe('the demo workshop', () => {
  it('has at least forty systems with a year or more of history', async () => {
    const { rows } = await bench.pool.query<{ n: string }>(
      "select count(distinct job.system_id) as n from job where done_on <= ($1::date - interval '1 year')",
      [new Date(bench.nowMs).toISOString().slice(0, 10)],
    );
    expect(Number(rows[0]?.n)).toBeGreaterThanOrEqual(40);
  });

  it('shows several systems in each state, and machines on benches', async () => {
    const counts = new Map<string, number>();
    for (const { attention } of await lines()) counts.set(attention, (counts.get(attention) ?? 0) + 1);
    for (const attention of ['overdue', 'soon', 'settling', 'fine', 'planned', 'retired', 'on-bench'])
      expect(counts.get(attention) ?? 0, attention).toBeGreaterThanOrEqual(2);
  });

  it('tells of one lot that falls out early, one of whose machines was opened for it', async () => {
    const { body } = await visitor.get<LivesAnswer>('/learned-lives');
    expect(body.early.map(({ what }) => what)).toEqual(['Chalkdown Pastel White, L448']);
    const [lot] = body.early;
    expect(lot?.observed).toBeGreaterThan(2 * (lot?.expected ?? Infinity));
    // two machines hold it still: their owners can be told
    expect(lot?.holders.map(({ systemName }) => systemName)).toEqual(expect.arrayContaining(['Ferry cube', 'Lamp box']));
    const opened = (await lines()).find(({ name }) => name === 'Cellar press');
    const { rows } = await bench.pool.query('select 1 from load_reading where system_id = $1 limit 1', [opened?.id]);
    expect(rows).toHaveLength(1);
  });

  it('tells by logs what ails three machines: dust that was cleaned, a block that was opened, and one that must come in', async () => {
    const { rows } = await bench.pool.query<{ system_id: string }>('select distinct system_id from load_reading');
    expect(rows).toHaveLength(3);
    const pages = await Promise.all(
      rows.map(async ({ system_id: id }) => (await visitor.get<ConditionPage>(`/systems/${id}/condition`)).body),
    );
    const conditions = pages.map(({ parts, readings, marks, limits }) => conditionOf(parts, readings, marks, limits));
    const comesIn = conditions.filter((parts) => parts.some(({ crosses, isOver }) => crosses !== null || isOver));
    expect(comesIn).toHaveLength(1);
    expect(pages.flatMap(({ marks }) => marks).some(({ kind }) => kind === 'dusted')).toBe(true);
    // what a service mended stands lower after it than before it
    const mended = conditions.filter((parts) => !comesIn.includes(parts));
    const fellTo = ({ points, since }: PartCondition): number => {
      const logged = points.filter(({ source }) => source === 'log');
      return Math.max(...logged.filter(({ on }) => on < (since ?? '')).map(({ theta }) => theta)) / (logged.at(-1)?.theta ?? NaN);
    };
    for (const parts of mended) expect(Math.max(...parts.map(fellTo))).toBeGreaterThan(1.04);
    const { body } = await visitor.get<{ dues: { kind: string; reason: { why: string } }[] }>(
      `/systems/${pages[conditions.indexOf(comesIn[0] ?? [])]?.system.id}`,
    );
    expect(body.dues.find(({ kind }) => kind === 'coolant-service')?.reason.why).toBe('condition');
  });

  it('has a run in progress whose clock still runs', async () => {
    const { runs } = (await visitor.get<{ runs: { timers: { finished: boolean }[] }[] }>('/benches')).body;
    expect(runs.some(({ timers }) => timers.some(({ finished }) => !finished))).toBe(true);
  });

  it('has learned volumes from its signed-off fills, which no other workshop sees', async () => {
    type Learned = { fills: number; items: { key: string; fills: number; prior: { sdMl: number }; learned: { sdMl: number } }[] };
    const { body } = await visitor.get<Learned>('/learned-volumes');
    expect(body.fills).toBeGreaterThan(35);
    const roof = body.items.find(({ key }) => key === 'radiator-360-30');
    expect(roof?.fills).toBeGreaterThan(5);
    expect(roof?.learned.sdMl).toBeLessThan(roof?.prior.sdMl ?? 0);
    const other = await bench.workshop('Elsewhere');
    expect((await other.get<Learned>('/learned-volumes')).body).toMatchObject({ items: [], fills: 0, surprising: [] });
  });

  it('learns nothing from a fill that its lead leaves out, until it is asked again; no neighbour can say so', async () => {
    type Learned = { fills: number; surprising: { id: string; verdict: string | null }[] };
    const before = (await visitor.get<Learned>('/learned-volumes')).body;
    // of a loop that holds parts of the catalogue: one without them teaches nothing of it
    const { rows } = await bench.pool.query<{ id: string }>(
      `select fill.id from fill join loop_revision on loop_revision.id = fill.revision_id
       where taught_ml is not null and file::text like '%"catalogue"%' and fill.id <> all ($1::uuid[]) order by filled_on, fill.id limit 1`,
      // one that surprises counts for nothing before its lead says so
      [before.surprising.map(({ id }) => id)],
    );
    const path = `/fills/${rows[0]?.id}/verdict`;
    const other = await bench.workshop('Next door');
    expect((await other.put(path, { verdict: 'left-out' })).status).toBe(404);
    expect((await visitor.put(path, { verdict: 'perhaps' })).status).toBe(422);
    const left = (await visitor.put<Learned>(path, { verdict: 'left-out' })).body;
    // another that surprised may count once this one does not: of all that taught, each counts or is told of
    const all = ({ fills, surprising }: Learned): number => fills + surprising.length;
    expect(all(left)).toBe(all(before));
    expect(before.surprising.some(({ id }) => id === rows[0]?.id)).toBe(false);
    expect(left.surprising).toContainEqual(expect.objectContaining({ id: rows[0]?.id, verdict: 'left-out' }));
    expect((await visitor.put<Learned>(path, { verdict: null })).body).toEqual(before);
  });

  it('was led by the same rules as any run: every entry of every log would be taken again', async () => {
    const { rows: runs } = await bench.pool.query<{ id: string; procedure: Procedure }>('select id, procedure from run');
    expect(runs.length).toBeGreaterThan(40);
    for (const { id, procedure } of runs) {
      const { rows } = await bench.pool.query<{ id: string; seq: number; at: Date; body: RunEventBody }>(
        'select id, seq, happened_at as at, body from run_event where run_id = $1 order by seq',
        [id],
      );
      const fold = new RunFold(procedure);
      for (const { at, ...row } of rows) {
        expect(refuseEntry(procedure, fold.state, fold.events, row.body, at.getTime()), `${row.body.type} ${row.seq}`).toBeNull();
        fold.push({ ...row, at: at.toISOString(), by: '' });
      }
    }
  });

  it('lies in the past, apart from what is due', async () => {
    for (const [table, column] of [
      ['run_event', 'happened_at'],
      ['fill', 'filled_on'],
      ['finding', 'found_at'],
      ['loop_revision', 'created_at'],
    ] as const) {
      const { rows } = await bench.pool.query<{ n: string }>(`select count(*) as n from ${table} where ${column} > $1`, [
        new Date(bench.nowMs),
      ]);
      expect(Number(rows[0]?.n), table).toBe(0);
    }
  });

  it('holds loops that any reader of the format accepts', async () => {
    const { rows } = await bench.pool.query<{ file: unknown }>('select file from loop_revision');
    for (const { file } of rows) expect(() => readLoopFile(file)).not.toThrow();
  });

  it('is written once, and never into a workshop that is there', async () => {
    const before = await bench.count('system');
    expect(await seedDemo(bench.database, clock)).toBe(false);
    expect(await bench.count('system')).toBe(before);
  });
});
