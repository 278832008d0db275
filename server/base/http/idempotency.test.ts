import { createHash, randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { errorOf, TestBench } from '../../../tests/integration/bench.js';
import { inWorkshop } from '../database/client.js';
import { pruneAnswers } from './idempotency.js';

let bench: TestBench;
beforeAll(async () => {
  bench = await TestBench.open();
});
afterAll(() => bench.close());

describe('what is kept of an answer', () => {
  const key = (): string => randomUUID();

  it('is never a secret: asked again there is none', async () => {
    const lead = await bench.workshop('Secrets');
    const one = key();
    const made = await lead.post<{ path: string }>('/calendars', { personId: null }, one);
    expect(made.body.path).toMatch(/\.ics$/);
    const again = await lead.post('/calendars', { personId: null }, one);
    expect([again.status, errorOf(again).message]).toEqual([409, expect.stringContaining('shown once')]);
    const benchId = (await lead.get<{ benches: { id: string }[] }>('/workshop')).body.benches[0]?.id as string;
    const access = await lead.post<{ secret: string }>(`/benches/${benchId}/access`, {}, key());
    const { rows } = await bench.pool.query<{ kept: string }>(
      'select string_agg(answer::text || request_hash, $1) as kept from idempotency',
      [' '],
    );
    expect(rows[0]?.kept).not.toContain(made.body.path.split('/').at(-1));
    expect(rows[0]?.kept).not.toContain(access.body.secret);
  });

  it('belongs to the person who asked', async () => {
    const lead = await bench.workshop('Own keys');
    const other = await lead.colleague('lead');
    const one = key();
    expect((await lead.post('/benches', { name: 'Left' }, one)).status).toBe(201);
    expect((await other.post('/benches', { name: 'Left' }, one)).status).toBe(409);
    expect((await lead.post('/benches', { name: 'Left' }, one)).status).toBe(201);
  });

  it('is no fingerprint that a password could be tried against', async () => {
    const lead = await bench.workshop('Prints');
    const body = { name: 'T', email: `${randomUUID()}@prints.example`, role: 'technician', password: 'ten letters too' };
    const one = key();
    expect((await lead.post('/people', body, one)).status).toBe(201);
    const { rows } = await bench.pool.query<{ hash: string }>('select request_hash as hash from idempotency where key = $1', [one]);
    expect(rows[0]?.hash).not.toBe(createHash('sha256').update(JSON.stringify(body)).digest('hex'));
  });

  it('goes after a week', async () => {
    const lead = await bench.workshop('Pruned');
    const one = key();
    await lead.post('/benches', { name: 'Old' }, one);
    const prune = () => inWorkshop(bench.database, lead.workshopId, (scope) => pruneAnswers(scope, new Date(bench.nowMs)));
    await prune();
    expect((await bench.pool.query('select 1 from idempotency where key = $1', [one])).rowCount).toBe(1);
    bench.wait(8 * 86_400);
    await prune();
    expect((await bench.pool.query('select 1 from idempotency where key = $1', [one])).rowCount).toBe(0);
  });
});
