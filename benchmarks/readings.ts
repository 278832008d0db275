import { chmodSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { INSTRUMENT_KEYS } from '../core/bench/instruments/kinds.js';
import { readingPayload } from '../core/bench/instruments/payloads.js';
import { instrumentTopic, readTopic, type InstrumentTopic } from '../core/bench/instruments/topics.js';
import { Ingest } from '../server/bench/instruments/ingest.js';
import { openDatabase, openPool, withClient } from '../server/base/database/client.js';
import { inOwnDatabase } from './ownDatabase.js';
import { createWorkshop } from '../server/workshop/people/workshop.js';

export interface ReadingFigures {
  readonly readings: number;
  /** ms from the first message to the last row, checked, numbered and told to whoever looks */
  readonly keptMs: number;
  /** ms that the database alone takes for the same rows from a file */
  readonly copyMs: number;
}

const BENCHES = 4;
/** messages of one bench that come at once: no queue overflows */
const AT_ONCE = 10_000;
const ROUNDS = 5;

/** What instruments send, as messages into the queue, against COPY of the same rows into the same table. */
export async function readingFigures(): Promise<ReadingFigures> {
  return inOwnDatabase(async ({ url, root }) => {
    const pool = openPool(url, () => undefined, { max: 8 });
    const database = openDatabase(pool);
    const { workshopId } = await database.transaction((scope) =>
      createWorkshop(scope, { workshopName: 'Bench', timeZone: 'UTC', personName: 'Lead', email: 'lead@bench.example', passwordHash: 'none' }),
    ); // prettier-ignore
    const benches = await withClient(url, async (client) => {
      await client.query(`insert into bench (workshop_id, name, position) select id, 'Bench ' || n, n from workshop, generate_series(2, ${BENCHES}) n`);
      return (await client.query<{ id: string }>('select id from bench order by position')).rows.map(({ id }) => id);
    }); // prettier-ignore
    const startMs = Date.parse('2026-03-09T09:00:00Z');
    const kinds = INSTRUMENT_KEYS.filter((kind) => kind === 'gauge' || kind === 'level' || kind === 'flow');
    const rowOf = (nth: number) => ({ kind: kinds[nth % kinds.length] as (typeof kinds)[number], value: nth % 90, at: new Date(startMs + nth * 100).toISOString() }); // prettier-ignore

    const ingest = new Ingest(database, { now: () => new Date() }, async () => undefined, (error) => { throw error; }); // prettier-ignore
    // messages are made beforehand: devices make them
    const messages = Array.from({ length: AT_ONCE }, (_, nth) => {
      const row = rowOf(nth);
      return benches.map((benchId) => [readTopic(instrumentTopic({ workshopId, benchId, kind: row.kind, channel: 'reading' })) as InstrumentTopic, readingPayload(row)] as const); // prettier-ignore
    });
    const start = performance.now();
    for (let round = 0; round < ROUNDS; round += 1) {
      for (const each of messages) for (const [topic, payload] of each) ingest.take(topic, payload);
      await ingest.settled();
    }
    const keptMs = performance.now() - start;
    const copyMs = await withClient(url, async (client) => {
      const { rows } = await client.query<{ n: string }>('select count(*) as n from instrument_reading');
      if (Number(rows[0]?.n) !== BENCHES * AT_ONCE * ROUNDS) throw new Error(`${rows[0]?.n} readings were kept of ${BENCHES * AT_ONCE * ROUNDS}`);
      await client.query('truncate instrument_reading');
      const file = path.join(root, 'readings.csv');
      const lines = Array.from({ length: AT_ONCE }, (_, nth) => rowOf(nth)).flatMap(({ kind, value, at }) => benches.map((benchId) => `${workshopId},${benchId},${kind},${value},${at}`));
      writeFileSync(file, `${lines.join('\n')}\n`);
      chmodSync(root, 0o755);
      const from = performance.now();
      for (let round = 0; round < ROUNDS; round += 1) await client.query(`copy instrument_reading (workshop_id, bench_id, kind, value, at) from '${file}' csv`);
      return performance.now() - from;
    }); // prettier-ignore
    await pool.end();
    return { readings: BENCHES * AT_ONCE * ROUNDS, keptMs, copyMs };
  });
}
