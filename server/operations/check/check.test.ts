import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestBench, type Visitor } from '../../../tests/integration/bench.js';
import { commissioned, lotOf } from '../../../tests/integration/led.js';
import { urlOfDatabase } from '../cluster/cluster.js';
import { checkDatabase } from './check.js';

let bench: TestBench;
let lead: Visitor;
let systemId: string;
let loopId: string;
let runId: string;
const check = () => checkDatabase(urlOfDatabase(process.env.LAVACRUM_TEST_DATABASE as string, bench.databaseName));
/** What the check says while something is wrong, which is put right again. */
async function whileWrong(wrong: string, right: string): Promise<string[]> {
  // triggers that keep logs and records as they are stand aside for this session: what a broken disk or a foreign hand may do
  await bench.pool.query(`set session_replication_role = replica; ${wrong}; reset session_replication_role`);
  const { findings } = await check();
  await bench.pool.query(`set session_replication_role = replica; ${right}; reset session_replication_role`);
  return findings.map(({ what, where }) => `${where}: ${what}`);
}

beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('Checked');
  ({ systemId, loopId } = await commissioned(bench, lead, 'Owl', await lotOf(lead, 'C1')));
  const made = await lead.loop(await lead.system('Kite'));
  runId = (await lead.run(made.id)).body.run.id;
  await lead.entry(runId, { type: 'note', step: 'kit', text: 'one' });
  await lead.entry(runId, { type: 'note', step: 'kit', text: 'two' });
  await lead.post('/store/items', { name: 'Ring', kind: 'seal', unit: 'pcs', lot: '', count: 12, reorderAt: 2 });
});
afterAll(() => bench.close());

describe('the check of a database', () => {
  it('finds everything in order, and says how much it looked at', async () => {
    const { looked, findings } = await check();
    expect(findings).toEqual([]);
    expect(looked).toMatchObject({ logs: 2, revisions: 3, 'signed records': 1 });
    expect(looked.entries).toBeGreaterThan(30);
    expect(looked['row policies']).toBeGreaterThan(40);
  });

  it('sees a gap in a log', async () => {
    expect(
      await whileWrong(
        `update run_event set seq = 9 where run_id = '${runId}' and seq = 2`,
        `update run_event set seq = 2 where run_id = '${runId}' and seq = 9`,
      ),
    ).toContain(`run ${runId}: entries are not numbered 1, 2, 3 …`);
  });

  it('sees a signed run without its record', async () => {
    const said = await whileWrong(
      'create table aside as select * from run_record; delete from run_record',
      'insert into run_record select * from aside; drop table aside',
    );
    expect(said.join()).toContain('a signed run without its record');
  });

  it('sees a count that is not the sum of its moves', async () => {
    const said = await whileWrong('update store_item set count = count + 1', 'update store_item set count = count - 1');
    expect(said).toEqual([expect.stringContaining('the count on the shelf is not the sum of its moves')]);
  });

  it('sees revisions that are missing, and a retired machine with an open date', async () => {
    expect(
      (
        await whileWrong(
          `update loop_revision set number = 5 where loop_id = '${loopId}' and number = 2`,
          `update loop_revision set number = 2 where loop_id = '${loopId}' and number = 5`,
        )
      ).join(),
    ).toContain('revisions of a loop are not numbered');
    expect(
      (
        await whileWrong(
          `update system set state = 'retired' where id = '${systemId}'`,
          `update system set state = 'in-service' where id = '${systemId}'`,
        )
      ).join(),
    ).toContain('a retired machine still has an open date');
  });

  it('sees a machine that fell out of the list', async () => {
    expect(
      await whileWrong(
        `delete from machine_line where id = '${systemId}'; delete from stale_line where system_id = '${systemId}'`,
        `insert into stale_line select workshop_id, id from system where id = '${systemId}'`,
      ),
    ).toEqual(['machine Owl: a machine has no line in the list, or its words are not searched']);
  });

  it('sees a table that lost its policy, and a book that is not its log’s', async () => {
    expect(await whileWrong('alter table owner no force row level security', 'alter table owner force row level security')).toEqual([
      'owner: a table with rows of workshops has no policy that binds everybody',
    ]);
    const said = await whileWrong(
      `update loop_contents set contents = jsonb_set(contents, '{insideMl}', '500') where run_id = '${runId}'`,
      `update loop_contents set contents = jsonb_set(contents, '{insideMl}', '0') where run_id = '${runId}'`,
    );
    expect(said).toEqual([`run ${runId}: the book that is kept with the loop is not the one its log makes`]);
  });

  it('refuses a login that row policies bind: it would find nothing wrong in nothing', async () => {
    await expect(checkDatabase(bench.databaseUrl)).rejects.toThrow();
  });
});
