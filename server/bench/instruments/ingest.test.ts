import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { instrumentTopic, readTopic, type InstrumentTopic } from '../../../core/bench/instruments/topics.js';
import type { InstrumentKind } from '../../../core/bench/instruments/kinds.js';
import { TestBench, type Visitor } from '../../../tests/integration/bench.js';
import type { KeptReadings } from './ingest.js';
import { Ingest } from './ingest.js';

let bench: TestBench;
let lead: Visitor;
let workshopId: string;
let benches: string[];
beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('Flood');
  workshopId = (await lead.get<{ account: { workshopId: string } }>('/session')).body.account.workshopId;
  benches = [];
  for (const name of ['Sink', 'Door', 'Yard']) benches.push((await lead.post<{ id: string }>('/benches', { name })).body.id);
});
afterAll(() => bench.close());
let kept: KeptReadings[];
let troubles: unknown[];
let ingest: Ingest;
beforeEach(async () => {
  [kept, troubles] = [[], []];
  await bench.pool.query('delete from instrument_reading');
  await bench.pool.query('delete from instrument');
  ingest = new Ingest(
    bench.database,
    { now: () => new Date(bench.nowMs) },
    async (batch) => void kept.push(batch),
    (error) => troubles.push(error),
  );
});

const at = (benchId: string, channel: 'state' | 'reading' = 'reading', kind: InstrumentKind = 'level'): InstrumentTopic =>
  readTopic(instrumentTopic({ workshopId, benchId, kind, channel })) as InstrumentTopic;
const valuesOf = async (benchId: string): Promise<number[]> =>
  (await bench.pool.query<{ value: number }>('select value from instrument_reading where bench_id = $1 order by id', [benchId])).rows.map(({ value }) => value); // prettier-ignore
const problemOf = async (benchId: string): Promise<string | undefined> =>
  (await bench.pool.query<{ problem: string }>('select problem from instrument where bench_id = $1', [benchId])).rows[0]?.problem;
const [sink, door, yard] = [() => benches[0] as string, () => benches[1] as string, () => benches[2] as string];

describe('readings on their way to the database', () => {
  it('are kept in batches, every one and in their order, however many come at once', async () => {
    for (let n = 0; n < 9000; n += 1) ingest.take(at(sink()), JSON.stringify({ value: n % 900 }));
    await ingest.settled();
    expect(await valuesOf(sink())).toEqual(Array.from({ length: 9000 }, (_, n) => n % 900));
    expect(kept.length).toBeLessThan(5);
    expect(troubles).toEqual([]);
  });

  it('of one bench do not wait for the flood of another', async () => {
    for (let n = 0; n < 20_000; n += 1) ingest.take(at(sink()), JSON.stringify({ value: n % 900 }));
    ingest.take(at(door()), JSON.stringify({ value: 7 }));
    await ingest.settled();
    const quiet = kept.findIndex(({ benchId }) => benchId === door());
    expect(quiet).toBeGreaterThanOrEqual(0);
    expect(quiet).toBeLessThan(kept.findLastIndex(({ benchId }) => benchId === sink()));
    expect(await valuesOf(door())).toEqual([7]);
  });

  it('beyond what can wait are left out, the oldest first, and it is said how many', async () => {
    for (let n = 0; n < 41_000; n += 1) ingest.take(at(yard()), JSON.stringify({ value: n < 4000 ? 1 : 2 }));
    await ingest.settled();
    const values = await valuesOf(yard());
    expect(values).toHaveLength(37_000);
    expect(values.every((value) => value === 2)).toBe(true);
    expect(await problemOf(yard())).toBe('4000 readings were left out: more came than could be kept');
  });

  it('that are wrong cost nothing again and again: it is written once', async () => {
    const transactions = vi.spyOn(bench.database, 'transaction');
    for (let n = 0; n < 500; n += 1) ingest.take(at(sink()), '{"value": 1, "unit": "bar"}');
    await ingest.settled();
    for (let n = 0; n < 500; n += 1) ingest.take(at(sink()), '{"value": 1, "unit": "bar"}');
    await ingest.settled();
    expect(transactions).toHaveBeenCalledTimes(1);
    transactions.mockRestore();
    expect(await problemOf(sink())).toBe('unit must be mm for level (got bar)');
    // an instrument that says of itself that it is well is believed, and what is wrong after that is said anew
    ingest.take(at(sink(), 'state'), '{"online": true}');
    await ingest.settled();
    expect(await problemOf(sink())).toBeNull();
    ingest.take(at(sink()), '{"value": 1, "unit": "bar"}');
    await ingest.settled();
    expect(await problemOf(sink())).toBe('unit must be mm for level (got bar)');
  });

  it('with one that the database cannot hold lose that one alone', async () => {
    await bench.pool.query(`create function no_thirteen() returns trigger language plpgsql as $$ begin
      if new.value = 13 then raise exception 'no' using errcode = '22008'; end if; return new; end $$;
      create trigger no_thirteen before insert on instrument_reading for each row execute function no_thirteen()`);
    try {
      for (let n = 0; n < 100; n += 1) ingest.take(at(sink()), JSON.stringify({ value: n }));
      await ingest.settled();
      expect(await valuesOf(sink())).toEqual(Array.from({ length: 100 }, (_, n) => n).filter((n) => n !== 13));
      expect(troubles).toHaveLength(1);
    } finally {
      await bench.pool.query('drop trigger no_thirteen on instrument_reading; drop function no_thirteen');
    }
  });

  it('wait where they are while the database is away', async () => {
    const real = bench.database.transaction.bind(bench.database);
    let away = 2;
    const transactions = vi.spyOn(bench.database, 'transaction').mockImplementation(((work: never, options: never) => {
      away -= 1;
      if (away >= 0) throw Object.assign(new Error('gone'), { code: '57P01' });
      return real(work, options);
    }) as never);
    for (let n = 0; n < 50; n += 1) ingest.take(at(sink()), JSON.stringify({ value: n }));
    await vi.waitFor(async () => expect(await valuesOf(sink())).toHaveLength(50), { timeout: 20_000 });
    transactions.mockRestore();
    expect(troubles).toHaveLength(2);
  });
});
