import { build } from 'esbuild';
import { usualLoop } from '../../../core/machine/catalogue/testLoops.js';
import { createConnection } from 'node:net';
import path from 'node:path';
import mqtt from 'mqtt';
import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { benchTopic, instrumentTopic } from '../../../core/bench/instruments/topics.js';
import type { RunAnswer } from '../../../core/bench/benches/answers.js';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';
import { DEFAULT_SCHOOLS } from '../../../core/physics/leak-testing/schools.js';
import { openDatabase } from '../../base/database/client.js';
import { systemClock } from '../../base/http/clock.js';
import { BenchKeeper } from '../simulated-bench/keeper.js';
import { PUSH_CHANNEL, type ReadingRow } from '../../base/push/notices.js';
import { pruneReadings } from './ingest.js';
import { instrumentsFor } from './reach.js';
import { InstrumentService } from './service.js';
import { InstrumentsThread } from './threadHandle.js';

/** A server of this test among those on its database, on any free port. */
const server = (name: string) => ({ name, mqttUrl: null, address: null, host: '127.0.0.1', port: 0 });

let bench: TestBench;
let service: InstrumentService;
let keeper: BenchKeeper;
let lead: Visitor;
let workshopId: string;
let benchId: string;
const clients: mqtt.MqttClient[] = [];

interface Bench {
  id: string;
  instruments: { kind: string; online: boolean; simulated: boolean; problem: string | null; last: { value: number } | null }[];
}

beforeAll(async () => {
  const log = pino({ level: 'silent' });
  // the simulated bench is another process: both go by the machine's clock
  bench = await TestBench.open({
    clock: systemClock,
    instruments: (url, database, clock) => {
      service = new InstrumentService({ databaseUrl: url, ...server('first') }, openDatabase(database), clock, log);
      keeper = new BenchKeeper(log, 'server/bench/simulated-bench/main.ts', ['--import', 'tsx']);
      const reach = { get brokers() { return service.brokers; }, get reach() { return service.reach; }, get embedded() { return service.embedded; } }; // prettier-ignore
      return { instruments: instrumentsFor(reach, keeper), onCommand: (command) => service.command(command) };
    },
  });
  await service.start();
  lead = await bench.workshop('Instruments');
  workshopId = (await lead.get<{ account: { workshopId: string } }>('/session')).body.account.workshopId;
  benchId = (await lead.post<{ id: string }>('/benches', { name: 'By the sink' })).body.id;
});
afterAll(async () => {
  await Promise.all(clients.map((client) => client.endAsync(true)));
  keeper.close();
  await service.close();
  await bench.close();
});

async function device(name: string, password: string): Promise<mqtt.MqttClient> {
  const client = await mqtt.connectAsync(service.brokers.url as string, { username: name, password, reconnectPeriod: 0 }, false);
  client.on('error', () => undefined);
  clients.push(client);
  return client;
}

async function access(): Promise<{ name: string; secret: string }> {
  return (await lead.post<{ name: string; secret: string }>(`/benches/${benchId}/access`, {})).body;
}

const own = async (): Promise<Bench> =>
  (await lead.get<{ benches: Bench[] }>('/instruments')).body.benches.find(({ id }) => id === benchId) as Bench;
const readings = async (after = ''): Promise<ReadingRow[]> =>
  (await lead.get<{ readings: ReadingRow[] }>(`/benches/${benchId}/readings${after ? `?after=${after}` : ''}`)).body.readings;

async function until<T>(look: () => Promise<T>, good: (found: T) => boolean): Promise<T> {
  for (let attempt = 0; attempt < 2000; attempt += 1) {
    const found = await look();
    if (good(found)) return found;
    await new Promise((resolve) => setTimeout(resolve, 60));
  }
  throw new Error('did not happen');
}

describe('instruments of a bench', () => {
  const topic = (kind: 'gauge' | 'level' | 'supply', channel: 'state' | 'reading', of = benchId) =>
    instrumentTopic({ workshopId, benchId: of, kind, channel });

  it('come in with the bench’s own secret, are kept in order, and can be read on from any number', async () => {
    const { name, secret } = await access();
    const gauge = await device(name, secret);
    await gauge.publishAsync(topic('gauge', 'state'), JSON.stringify({ online: true, unit: 'kPa', resolution: 0.1 }), {
      retain: true,
      qos: 1,
    });
    for (const value of [50.1, 50, 49.9])
      await gauge.publishAsync(topic('gauge', 'reading'), JSON.stringify({ value, unit: 'kPa' }), { qos: 1 });
    const all = await until(() => readings(), (rows) => rows.length >= 3); // prettier-ignore
    expect(all.map(([, kind, value]) => [kind, value])).toEqual([['gauge', 50.1], ['gauge', 50], ['gauge', 49.9]]); // prettier-ignore
    expect((await readings(String(all[0]?.[0]))).map(([, , value]) => value)).toEqual([50, 49.9]);
    expect((await own()).instruments).toMatchObject([{ kind: 'gauge', online: true, simulated: false, last: { value: 49.9 } }]);
  });

  it('are refused with a wrong secret, and with the one before the newest', async () => {
    const before = await access();
    const { name } = await access();
    await expect(device(name, 'guessed')).rejects.toThrow();
    await expect(device(name, before.secret)).rejects.toThrow();
  });

  it('cannot write to another bench, nor read there', async () => {
    const other = (await lead.post<{ id: string }>('/benches', { name: 'By the door' })).body.id;
    const { name, secret } = await access();
    const gauge = await device(name, secret);
    const granted = await gauge.subscribeAsync(`${benchTopic(workshopId, other)}/#`).catch(() => []);
    expect(granted.filter(({ qos }) => qos !== 128)).toEqual([]);
    await gauge.publishAsync(topic('gauge', 'reading', other), JSON.stringify({ value: 1 })).catch(() => undefined);
    await new Promise((resolve) => setTimeout(resolve, 200));
    expect((await lead.get<{ readings: unknown[] }>(`/benches/${other}/readings`)).body.readings).toEqual([]);
  });

  it('say what is wrong with a message, and keep nothing of it', async () => {
    const { name, secret } = await access();
    const gauge = await device(name, secret);
    const before = (await readings()).length;
    await gauge.publishAsync(topic('gauge', 'reading'), JSON.stringify({ value: 0.5, unit: 'bar' }), { qos: 1 });
    const told = await until(own, ({ instruments }) => instruments.some(({ problem }) => problem !== null));
    expect(told.instruments.find(({ kind }) => kind === 'gauge')?.problem).toBe('unit must be kPa for gauge (got bar)');
    expect((await readings()).length).toBe(before);
  });

  it('are off line by their last will when the power goes', async () => {
    const { name, secret } = await access();
    const level = await mqtt.connectAsync(service.brokers.url as string, {
      username: name,
      password: secret,
      reconnectPeriod: 0,
      will: { topic: topic('level', 'state'), payload: Buffer.from('{"online":false}'), qos: 1, retain: true },
    });
    await level.publishAsync(topic('level', 'state'), '{"online":true,"unit":"mm"}', { qos: 1, retain: true });
    await until(own, ({ instruments }) => instruments.some(({ kind, online }) => kind === 'level' && online));
    level.stream.destroy();
    await until(own, ({ instruments }) => instruments.some(({ kind, online }) => kind === 'level' && !online));
  });

  it('that guess are turned away after a few tries, right secret or not, and others go on', async () => {
    const place = (await lead.post<{ id: string }>('/benches', { name: 'Guessed' })).body.id;
    const { name, secret } = (await lead.post<{ name: string; secret: string }>(`/benches/${place}/access`, {})).body;
    const connect = (password: string) => mqtt.connectAsync(service.brokers.url as string, { username: name, password, reconnectPeriod: 0 }, false).then((client) => client.endAsync(true).then(() => true), () => false); // prettier-ignore
    expect(await connect(secret)).toBe(true);
    for (let n = 0; n < 10; n += 1) expect(await connect(`guess ${n}`)).toBe(false);
    expect(await connect(secret)).toBe(false);
  });

  it('that send a packet nobody needs are cut off, and the broker goes on', async () => {
    const socket = createConnection(Number(new URL(service.brokers.url as string).port), '127.0.0.1');
    const closed = new Promise((resolve) => socket.once('close', resolve));
    socket.on('error', () => undefined);
    // a sign-in that announces 250 MB
    socket.write(Buffer.from([0x10, 0xff, 0xff, 0xff, 0x7f, 0, 4]));
    await closed;
    expect((await lead.get('/instruments')).status).toBe(200);
  });

  it('are seen by their own workshop alone', async () => {
    const stranger = await bench.workshop('Elsewhere');
    expect((await stranger.get(`/benches/${benchId}/readings`)).status).toBe(404);
    expect((await stranger.post(`/benches/${benchId}/access`, {})).status).toBe(404);
    expect((await stranger.post(`/benches/${benchId}/hands`, { do: 'look' })).status).toBe(409);
  });
});

describe('the thread of the instruments', () => {
  it('keeps what devices send while the server is busy with something else', async () => {
    const log = pino({ level: 'silent' });
    const own = { databaseUrl: bench.databaseUrl, ...server('first') };
    // the other service lets go of the instruments first
    await service.close();
    // a thread is no place for a loader of sources: built as it ships
    const file = path.resolve('node_modules/.cache/lavacrum/instruments.mjs');
    await build({ entryPoints: ['server/bench/instruments/thread.ts'], bundle: true, platform: 'node', format: 'esm', packages: 'external', outfile: file, logLevel: 'silent' }); // prettier-ignore
    const thread = new InstrumentsThread(own, file, log);
    thread.start();
    try {
      await expect.poll(() => thread.reached, { timeout: 120_000 }).toBe(true);
      const { name, secret } = await access();
      const client = await mqtt.connectAsync(thread.brokers.url as string, { username: name, password: secret, reconnectPeriod: 0 }, false);
      clients.push(client);
      const before = Date.now();
      client.publish(`${benchTopic(workshopId, benchId)}/gauge/reading`, JSON.stringify({ value: 41.5 }), { qos: 0 });
      await new Promise((resolve) => setImmediate(resolve));
      // nothing else of this process runs for a while: a hostile request, a large computation
      Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 1500);
      const { rows } = await bench.pool.query<{ at: Date }>('select at from instrument_reading where bench_id = $1 and value = 41.5', [
        benchId,
      ]);
      expect(rows).toHaveLength(1);
      expect((rows[0] as { at: Date }).at.getTime() - before).toBeLessThan(1400);
      await client.endAsync(true);
    } finally {
      await thread.close();
    }
    expect(thread.brokers.url).toBeNull();
    service = new InstrumentService(own, bench.database, systemClock, log);
    await service.start();
  });
});

describe('readings of the past', () => {
  it('are kept for a month, and entries of runs for good', async () => {
    await bench.pool.query("insert into instrument_reading (workshop_id, bench_id, kind, value, at) values ($1, $2, 'gauge', 1, now() - interval '40 days'), ($1, $2, 'gauge', 2, now() - interval '20 days')", [workshopId, benchId]); // prettier-ignore
    await pruneReadings(bench.database, new Date());
    const { rows } = await bench.pool.query("select value from instrument_reading where at < now() - interval '10 days'");
    expect(rows).toEqual([{ value: 2 }]);
  });
});

describe('a practice run at a simulated bench', () => {
  let runId: string;
  let loopId: string;
  let place: string;

  beforeAll(async () => {
    loopId = (await lead.loop(await lead.system('Practised on'))).id;
    const answer = await lead.post<{ run: { id: string; benchId: string } }>('/runs', {
      loopId,
      benchId: null,
      schools: { leak: 'dry-then-wet', wet: 'ten-minutes', limit: 'screen', gaugeResolutionKpa: 0.1 },
      practice: { scenario: 'leak', seed: 11 },
    });
    expect(answer.status).toBe(201);
    runId = answer.body.run.id;
    // a table of its own: no real bench is taken by it
    place = answer.body.run.benchId;
    const { benches } = (await lead.get<{ benches: { id: string }[] }>('/benches')).body;
    expect(benches.map(({ id }) => id)).not.toContain(place);
    expect((await lead.post(`/runs/${runId}/simulated-bench`, { scenario: 'clean' })).status).toBe(201);
    await until(
      async () => (await lead.get<{ benches: Bench[] }>('/instruments')).body.benches.find(({ id }) => id === place) as Bench,
      ({ instruments }) => instruments.length === 7 && instruments.every(({ online, simulated }) => online && simulated),
    );
  });

  const read = async () =>
    (
      await lead.get<{
        run: { procedure: { steps: { id: string; checks: { id: string }[] }[] } };
        events: { body: { type: string; source?: string; gaugeKpa?: number } }[];
        practice: { scenario: string | null; aheadMs: number };
      }>(`/runs/${runId}`)
    ).body;

  async function upToDry(): Promise<void> {
    const { steps } = (await read()).run.procedure;
    for (const step of steps) {
      if (step.id === 'dry') break;
      for (const { id } of step.checks) await lead.entry(runId, { type: 'check', step: step.id, check: id, mark: 'done' });
      await lead.entry(runId, { type: 'step-done', step: step.id });
    }
  }

  it('does not begin on a loop that cannot be played, and says why', async () => {
    const bare = usualLoop();
    const own = { ...bare, components: bare.components.map((part) => (part.kind === 'pump' ? { ...part, curve: undefined } : part)) };
    const made = await lead.post<{ id: string }>('/loops', {
      systemId: await lead.system('Bare'),
      name: 'Bare',
      coolantProductId: null,
      file: own,
    });
    const refused = await lead.post('/runs', {
      loopId: made.body.id,
      benchId: null,
      schools: { ...DEFAULT_SCHOOLS },
      practice: { scenario: 'clean', seed: 1 },
    });
    expect(errorOf(refused).message).toMatch(/cannot be practised on: .*curve is missing/);
  });

  it('touches nothing of the owner’s, and hides its fault', async () => {
    expect((await lead.get<{ activeRunId: string | null }>(`/loops/${loopId}`)).body.activeRunId).toBeNull();
    expect((await read()).practice).toMatchObject({ scenario: null, aheadMs: 0 });
    const refused = await lead.post(`/runs/${runId}/sign-off`, { id: crypto.randomUUID(), remark: '' });
    expect(errorOf(refused).message).toMatch(/ended with its debrief/);
  });

  it('reads the gauge every minute by itself once the first reading came from it, and time can be set ahead', async () => {
    await upToDry();
    expect((await lead.post(`/benches/${place}/hands`, { do: 'pump-up', gaugeKpa: 50 })).status).toBe(201);
    await until(
      async () => (await lead.get<{ readings: ReadingRow[] }>(`/benches/${place}/readings`)).body.readings,
      (rows) => rows.some(([, kind, value]) => kind === 'gauge' && value > 45),
    );
    await lead.entry(runId, { type: 'dry-reading', gaugeKpa: 50, tempC: 21.4, source: 'simulated' });
    expect((await lead.post(`/runs/${runId}/skip`, { seconds: 1200 })).status).toBe(201);
    const { events } = await until(read, (found) => found.events.filter(({ body }) => body.type === 'dry-reading').length >= 12);
    const gauge = events.flatMap(({ body }) => (body.type === 'dry-reading' ? [body] : []));
    expect(gauge.every(({ source }) => source === 'simulated')).toBe(true);
    expect(gauge.at(-1)?.gaugeKpa).toBeLessThan(gauge[0]?.gaugeKpa ?? 0);
  });

  it('ends with a debrief that tells what was hidden, and leaves the bench free', async () => {
    const { body } = await until(
      () => lead.post<{ debrief: { hidden: string[]; lines: { kind: string; text: string }[] } }>(`/runs/${runId}/debrief`, {}),
      ({ status }) => status === 201,
    );
    expect(body.debrief.hidden[0]).toMatch(/^A leak at/);
    expect(body.debrief.lines.some(({ kind, text }) => kind === 'missed' && /was not found/.test(text))).toBe(true);
    expect((await read()).practice.scenario).toBe('leak');
    // the table is free again: the next practice takes the same one
    const again = await lead.post<{ run: { benchId: string } }>('/runs', {
      loopId,
      benchId: null,
      schools: { ...DEFAULT_SCHOOLS },
      practice: { scenario: 'clean', seed: 2 },
    });
    expect(again.body.run.benchId).toBe(place);
  });
});

describe('a practised service', () => {
  const practise = async (job: object, scenario = 'clean') =>
    lead.post<RunAnswer>('/runs', {
      loopId: (await lead.loop(await lead.system(`Serviced ${crypto.randomUUID().slice(0, 6)}`))).id,
      benchId: null,
      schools: { ...DEFAULT_SCHOOLS, leak: 'wet-only' },
      practice: { scenario, seed: 4, job },
    });
  /** what a hand reads off the jug */
  const jugAt = async (place: string): Promise<string> => {
    const heard: string[] = [];
    const client = await bench.pool.connect();
    client.on('notification', ({ payload = '{}' }) => {
      const notice = JSON.parse(payload) as { kind: string; benchId: string; text: string };
      if (notice.kind === 'seen' && notice.benchId === place && notice.text.startsWith('The jug')) heard.push(notice.text);
    });
    await client.query(`listen ${PUSH_CHANNEL}`);
    expect((await lead.post(`/benches/${place}/hands`, { do: 'read-jug' })).status).toBe(201);
    await until(async () => heard, (all) => all.length > 0); // prettier-ignore
    client.release(true);
    return heard.at(-1) as string;
  };

  it('begins filled, drains over the jug as its sheet is ticked, and tells in its debrief what was written down', async () => {
    const { status, body } = await practise({ kind: 'drain-refill', partId: null });
    expect(status).toBe(201);
    const { id, benchId, procedure } = body.run;
    expect(body.run.jobId).toBeNull();
    expect(procedure.service).toMatchObject({ kind: 'drain-refill', inside: { volumeMl: expect.any(Number) as number } });
    const place = benchId as string;
    expect((await lead.post(`/runs/${id}/simulated-bench`, { scenario: 'clean' })).status).toBe(201);
    await until(
      async () => (await lead.get<{ readings: ReadingRow[] }>(`/benches/${place}/readings`)).body.readings,
      (rows) => rows.some(([, kind, value]) => kind === 'level' && value > 20),
    );
    for (const step of procedure.steps) {
      for (const check of step.checks) await lead.entry(id, { type: 'check', step: step.id, check: check.id, mark: 'done' });
      if (step.id === 'drain') break;
      const pass = step.id === 'before' ? { type: 'deviation', step: step.id, reason: 'practised elsewhere' } : { type: 'step-done', step: step.id }; // prettier-ignore
      expect((await lead.entry(id, pass)).status, step.id).toBe(201);
    }
    const jug = Number((await jugAt(place)).match(/(\d+) mL/)?.[1]);
    expect(jug).toBeGreaterThan(0.6 * (procedure.service?.inside?.volumeMl ?? 0));
    await lead.entry(id, { type: 'drained', step: 'drain', volumeMl: jug, how: 'jug', wasteId: null });
    expect(await jugAt(place)).toBe('The jug is empty.');
    const { body: told } = await until(
      () => lead.post<{ debrief: { lines: { kind: string; text: string }[] } }>(`/runs/${id}/debrief`, {}),
      (answer) => answer.status === 201,
    );
    expect(told.debrief.lines).toContainEqual(expect.objectContaining({ kind: 'good', text: expect.stringMatching(/^What came out was measured/) as string })); // prettier-ignore
  });

  it('notes a load test minute by minute from its first note on, until the reading is entered', async () => {
    const { body } = await practise({ kind: 'drain-refill', partId: null });
    const { id, benchId: at } = body.run;
    const place = at as string;
    expect((await lead.post(`/runs/${id}/simulated-bench`, { scenario: 'clean' })).status).toBe(201);
    const kinds = async (): Promise<string[]> => ((await lead.get<{ benches: Bench[] }>('/instruments')).body.benches.find((each) => each.id === place) as Bench).instruments.map(({ kind }) => kind); // prettier-ignore
    await until(kinds, (all) => all.includes('level'));
    // the machine says nothing of its parts before it runs
    expect(await kinds()).not.toContain('processor-temp');
    await until(() => lead.post(`/benches/${place}/hands`, { do: 'load', on: true }), ({ status }) => status === 201); // prettier-ignore
    await until(kinds, (all) => all.includes('processor-temp') && all.includes('graphics-power'));
    const kit = body.run.procedure.steps.find((step) => step.id === 'kit');
    for (const check of kit?.checks ?? []) await lead.entry(id, { type: 'check', step: 'kit', check: check.id, mark: 'done' });
    await lead.entry(id, { type: 'step-done', step: 'kit' });
    expect(
      await lead.entry(id, { type: 'warming', sensor: 'processor package', tempC: 24, before: true, source: 'simulated' }),
    ).toMatchObject({ status: 201 });
    expect((await lead.post(`/runs/${id}/skip`, { seconds: 900 })).status).toBe(201);
    const notes = async () => {
      const { events } = (await lead.get<{ events: { body: { type: string; source?: string; tempC?: number; sensor?: string } }[] }>(`/runs/${id}`)).body; // prettier-ignore
      return events.flatMap((event) => (event.body.type === 'warming' ? [event.body] : []));
    };
    const noted = await until(notes, (all) => all.length >= 9);
    expect(noted.every(({ source, sensor }) => source === 'simulated' && sensor === 'processor package')).toBe(true);
    expect(noted.at(-1)?.tempC).toBeGreaterThan(30);
  });

  it('is refused where the job has no such fault, or no part to change', async () => {
    expect(errorOf(await practise({ kind: 'drain-refill', partId: null }, 'leak')).message).toMatch(/cannot hide/);
    expect(errorOf(await practise({ kind: 'partial-drain', partId: null })).message).toMatch(/Name the part/);
    expect(errorOf(await practise({ kind: 'partial-drain', partId: 'nothing-like-it' })).message).toMatch(/is not in this loop/);
    expect((await practise({ kind: 'closed-loop', partId: null })).status).toBe(422);
  });
});
