import { createConnection, createServer, type AddressInfo, type Server, type Socket } from 'node:net';
import { pino } from 'pino';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { TestBench } from '../../../tests/integration/bench.js';
import { NightlyWork } from './nightly.js';
import { QueueDatabase } from './queueDatabase.js';

let bench: TestBench;
beforeAll(async () => {
  bench = await TestBench.open();
});
afterAll(() => bench.close());

/** A wire to the database that can be cut and joined again, always at the same port. */
class Wire {
  private server: Server | null = null;
  private readonly sockets = new Set<Socket>();
  private port = 0;

  async join(): Promise<void> {
    const target = new URL(bench.databaseUrl);
    this.server = createServer((near) => {
      const far = createConnection(Number(target.port), target.hostname);
      for (const [one, other] of [
        [near, far],
        [far, near],
      ] as const) {
        this.sockets.add(one);
        one.pipe(other);
        one.on('error', () => other.destroy());
        one.on('close', () => other.destroy());
      }
    });
    await new Promise<void>((resolve) => this.server?.listen(this.port, '127.0.0.1', resolve));
    this.port = (this.server.address() as AddressInfo).port;
  }

  async cut(): Promise<void> {
    for (const socket of this.sockets) socket.destroy();
    this.sockets.clear();
    await new Promise((resolve) => this.server?.close(resolve) ?? resolve(null));
    this.server = null;
  }

  get url(): string {
    const url = new URL(bench.databaseUrl);
    url.port = String(this.port);
    return url.href;
  }
}

it('a statement of the queue waits for a database that is away, and is answered once it is back', async () => {
  const wire = new Wire();
  await wire.join();
  let away = 0;
  const queue = new QueueDatabase(wire.url, () => {
    away += 1;
  });
  expect((await queue.executeSql('select 1 as one')).rows).toEqual([{ one: 1 }]);
  await wire.cut();
  const waiting = queue.executeSql('select 2 as two');
  await expect.poll(() => away).toBeGreaterThan(0);
  await wire.join();
  expect((await waiting).rows).toEqual([{ two: 2 }]);
  await expect(queue.executeSql('select nothing from nowhere')).rejects.toThrow();
  await wire.cut();
  const never = queue.executeSql('select 3');
  await queue.close();
  expect(await never).toEqual({ rows: [] });
});

it('work whose database goes away while a piece is being done goes on, and the piece is marked done', async () => {
  const wire = new Wire();
  await wire.join();
  const log = pino({ level: 'silent' });
  const clock = { now: () => new Date(bench.nowMs) };
  const work = new NightlyWork({ databaseUrl: wire.url, smtpUrl: null, sender: 'desk@workshop.example' }, bench.database, clock, log);
  // the wire is cut while the queue's own statements wait: nothing is thrown that nobody holds
  await wire.cut();
  const started = work.start();
  await wire.join();
  await started;
  let begun = 0;
  const redate = work.redateWorkshop.bind(work);
  work.redateWorkshop = async (workshopId) => {
    begun += 1;
    await wire.cut();
    return redate(workshopId);
  };
  const desk = await bench.workshop('Owl');
  const done = async (): Promise<number> =>
    (
      await bench.pool.query<{ n: number }>(
        `select count(*)::int as n from pgboss.job where name = 'redate-workshop' and state = 'completed'`,
      )
    ).rows[0]?.n ?? 0;
  await work.planNight();
  await expect.poll(() => begun, { timeout: 120_000 }).toBe(1);
  expect(await done()).toBe(0);
  await wire.join();
  await expect.poll(done, { timeout: 120_000 }).toBe(1);
  expect((await desk.get('/workshop')).status).toBe(200);
  await work.close();
  await wire.cut();
});
