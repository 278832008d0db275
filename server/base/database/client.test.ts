import { afterAll, beforeAll, expect, it } from 'vitest';
import { TestBench } from '../../../tests/integration/bench.js';
import { urlOfDatabase } from '../../operations/cluster/cluster.js';
import { openPool } from './client.js';

let bench: TestBench;
beforeAll(async () => {
  bench = await TestBench.open();
});
afterAll(() => bench.close());

it('a connection that breaks between two queries of a transaction is an error of that transaction, not the end of the process', async () => {
  const broke: Error[] = [];
  const pool = openPool(urlOfDatabase(process.env.LAVACRUM_TEST_SERVER as string, bench.databaseName), (error) => broke.push(error));
  const client = await pool.connect();
  await client.query('begin');
  const { rows } = await client.query<{ pid: number }>('select pg_backend_pid() as pid');
  await bench.pool.query('select pg_terminate_backend($1)', [rows[0]?.pid]);
  await expect.poll(() => broke.length).toBeGreaterThan(0);
  await expect(client.query('select 1')).rejects.toThrow();
  client.release(true);
  expect((await pool.query<{ one: number }>('select 1 as one')).rows[0]?.one).toBe(1);
  await pool.end();
});
