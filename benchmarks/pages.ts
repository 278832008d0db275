import { spawn, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { createServer } from 'node:net';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import pg from 'pg';
import { hashPassword } from '../server/workshop/people/password.js';
import { createWorkshop } from '../server/workshop/people/workshop.js';
import { openDatabase, openPool, withClient } from '../server/base/database/client.js';
import { ATTENTION_ORDER, type Attention } from '../core/workshop/due-dates/attention.js';
import { HORIZON_DAYS } from '../core/workshop/machine-list/pages.js';
import { inOwnDatabase, milliseconds } from './ownDatabase.js';
import { grow } from '../server/operations/grow/grow.js';

/** Pages of a full workshop, asked of a server of its own, against the SQL that brings the same rows. */
export interface PageFigures {
  readonly name: string;
  readonly kilobytes: number;
  /** ms, 95 of 100 answers are faster */
  readonly p95Ms: number;
  readonly sqlP95Ms: number;
}
export interface SizeFigures {
  readonly machines: number;
  readonly fills: number;
  readonly growS: number;
  readonly pages: readonly PageFigures[];
  readonly crowd: { readonly users: number; readonly asked: number; readonly failed: number; readonly p95Ms: number };
  /** most that the server held at once */
  readonly serverBytes: number;
}

const PASSWORD = 'long towel under joint 9';
const EMAIL = 'lead@bench.example';
/** answers of each page, after some that count for nothing */
const TURNS = { warm: 12, counted: 60 } as const;
const CROWD = { users: 50, everyMs: 2000, forMs: 24_000 } as const;
/** jobs that wait for their slot, and slots, on the board */
const BOOKED = 120;

const p95 = (times: readonly number[]): number => [...times].sort((a, b) => a - b)[Math.floor(times.length * 0.95)] as number;

/** A board with work on it: booked services with slots, two benches, one of them taken each hour of the working day. */
const BOARD = `
  insert into bench (workshop_id, name, position) select id, 'Bench ' || n, n from workshop, generate_series(2, 3) n;
  with booked as (
    insert into job (workshop_id, system_id, kind, state, person_id, note)
    select s.workshop_id, s.id, 'drain-refill', 'booked', (select id from person limit 1), 'pump hums' from system s order by s.name limit ${BOOKED} returning *),
  service as (
    insert into service_job (workshop_id, job_id, loop_id, intake, estimate, windows)
    select b.workshop_id, b.id, l.id, '{"signs": [], "flowLph": null, "symptom": "warmer than before"}', '{"hours": 2, "lines": [], "partsText": ""}', '[]'
    from booked b join loop l on l.system_id = b.system_id)
  insert into slot (workshop_id, job_id, bench_id, starts_at, ends_at, steps)
  select b.workshop_id, b.id, (select id from bench order by position limit 1), now() + interval '3 hours' * b.nth, now() + interval '3 hours' * b.nth + interval '2 hours', '[]'
  from (select *, row_number() over () as nth from booked) b`;

/** What each page shows, as plain SQL with its indexes in reach: no policies, no rights, no words. */
function sqlOf(shop: string, systemId: string): Readonly<Record<string, readonly string[]>> {
  const of = (name: string): string => `${name}.workshop_id = '${shop}'`;
  const order = 'l.rank, l.next_due_on, l.name_key collate "C", l.id';
  const shown = (where: string, limit: number): string =>
    `select l.*, s.name, s.tag, s.case_text, s.state, o.name, o.phone, p.name, p.colour
     from (select * from machine_line l where ${of('l')} and ${where} order by ${order} limit ${limit}) l
     join system s on s.id = l.id join owner o on o.id = s.owner_id left join coolant_product p on p.id = l.coolant_id order by ${order}`;
  const dues = (where: string, limit: number): string =>
    `select d.* from (select id from machine_line l where ${of('l')} and ${where} order by ${order} limit ${limit}) shown
     join due_item d on d.system_id = shown.id where ${of('d')} and d.state = 'open'`;
  const counts = `select rank, count(*) from machine_line l where ${of('l')} group by rank`;
  const rank = (attention: Attention): number => ATTENTION_ORDER.indexOf(attention);
  const over = `l.rank = ${rank('overdue')}`;
  const coming = `l.rank not in (${rank('overdue')}, ${rank('retired')}) and l.next_due_on <= current_date + ${HORIZON_DAYS}`;
  const found = (kind: string): string =>
    `select t.ref from search_text t where ${of('t')} and kind = '${kind}' and text like '%machine%' and text like '%500%'`;
  const ofSystem = (table: string, and = 'true'): string =>
    `select t.* from ${table} t where ${of('t')} and t.system_id = '${systemId}' and ${and}`;
  const loops = `select l.id from loop l where ${of('l')} and l.system_id = '${systemId}'`;
  const revisions = `select r.id from loop_revision r where r.loop_id in (${loops})`;
  const booked = (and: string): string =>
    `select j.*, t.*, s.name, o.name, (select file from loop_revision r where r.loop_id = t.loop_id order by number desc limit 1)
     from job j join service_job t on t.workshop_id = j.workshop_id and t.job_id = j.id join system s on s.id = j.system_id join owner o on o.id = s.owner_id
     where ${of('j')} and j.state in ('booked', 'waiting', 'active') and ${and}`;
  return {
    list: [counts, shown('true', 51), dues('true', 50)],
    Today: [counts, shown(over, 41), dues(over, 40), `select count(*) from machine_line l where ${of('l')} and ${coming}`, shown(coming, 41), dues(coming, 40), booked('true')],
    system: [
      `select s.*, o.* from system s join owner o on o.id = s.owner_id where s.id = '${systemId}'`,
      `select l.*, r.file from loop l join lateral (select file from loop_revision r where r.loop_id = l.id order by number desc limit 1) r on true where ${of('l')} and l.system_id = '${systemId}'`,
      ofSystem('due_item', "t.state = 'open'"),
      `select * from run r where ${of('r')} and r.loop_id in (${loops})`,
      `select * from fill f where ${of('f')} and f.revision_id in (${revisions}) order by f.filled_on desc limit 1`,
      booked(`j.system_id = '${systemId}'`),
      ofSystem('usage_reading'),
      ofSystem('fitted_part'),
      ofSystem('kept_part'),
      `select * from policy t where ${of('t')}`,
    ],
    history: [
      `select j.*, p.name, f.*, c.name from job j join person p on p.id = j.person_id left join fill f on f.workshop_id = j.workshop_id and f.job_id = j.id
       left join coolant_product c on c.id = f.product_id where ${of('j')} and j.system_id = '${systemId}' order by j.done_on desc limit 61`,
      `select r.id, r.number, r.kind, r.reason from loop_revision r where r.loop_id in (${loops})`,
      ofSystem('finding'),
      ofSystem('due_item', "t.state = 'closed'"),
      `select x.* from postponement x join due_item d on d.id = x.due_item_id where ${of('d')} and d.system_id = '${systemId}'`,
      `select b.* from baseline b where ${of('b')} and b.revision_id in (${revisions})`,
      ofSystem('photo'),
      ofSystem('message'),
    ],
    search: [
      shown(`l.id in (${found('machine')})`, 26),
      ...['job', 'intake', 'finding', 'entry', 'lot', 'product', 'fitted', 'part', 'photo', 'kept', 'item'].map((kind) => `${found(kind)} order by t.at desc limit 25`),
    ],
    board: [
      `select t.* from slot t where ${of('t')} order by starts_at`,
      `select * from bench t where ${of('t')}`,
      `select id, name, role, skills from person t where ${of('t')}`,
      booked('true'),
      `select r.id from run r where ${of('r')} and r.state = 'signed-off' order by signed_off_at desc limit 300`,
    ],
  };
} // prettier-ignore

const freePort = (): Promise<number> =>
  new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });

/** Most that a process held in memory at once, in bytes; by its kernel. */
function peakOf(server: ChildProcess): number {
  const line = /VmHWM:\s+(\d+) kB/.exec(readFileSync(`/proc/${server.pid}/status`, 'utf8'));
  return Number(line?.[1] ?? 0) * 1024;
}

/** A server as it is started, on a database of its own. */
async function startServer(url: string, dataFolder: string): Promise<{ server: ChildProcess; base: string }> {
  const port = await freePort();
  const server = spawn(process.execPath, [path.join('dist', 'main.mjs')], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, NODE_ENV: 'production', DATABASE_URL: url, LAVACRUM_OWNER_URL: url, LAVACRUM_PORT: String(port), LAVACRUM_MQTT_PORT: '0', LAVACRUM_DATA: dataFolder, LAVACRUM_DEMO: '0', LAVACRUM_BACKUPS_KEPT: '0', LAVACRUM_LOG: 'error' },
  }); // prettier-ignore
  const base = `http://127.0.0.1:${port}/api`;
  for (let tries = 0; tries < 200; tries += 1) {
    const isUp = await fetch(`${base}/health`).then(({ ok }) => ok, () => false); // prettier-ignore
    if (isUp) return { server, base };
    await sleep(100);
  }
  server.kill();
  throw new Error('the measured server did not start');
}

export async function pageFigures(machines: number): Promise<SizeFigures> {
  return inOwnDatabase(async ({ url, root }) => {
    let server: ChildProcess | null = null;
    try {
      const pool = openPool(url, () => undefined, { max: 2, patient: true });
      await openDatabase(pool).transaction(async (scope) =>
      createWorkshop(scope, { workshopName: 'Bench', timeZone: 'UTC', personName: 'Lead', email: EMAIL, passwordHash: await hashPassword(PASSWORD) }),
    ); // prettier-ignore
      const grown = await grow(openDatabase(pool), machines, new Date());
      await pool.end();
      await withClient(url, async (client) => {
        await client.query(BOARD);
        await client.query('vacuum analyze');
      });
      const started = await startServer(url, root);
      server = started.server;
      const { base } = started;
      const signIn = await fetch(`${base}/session`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ email: EMAIL, password: PASSWORD }),
      });
      const cookie = signIn.headers
        .getSetCookie()
        .map((each) => each.split(';')[0])
        .join('; ');
      const ask = async (address: string): Promise<number> => {
        const answer = await fetch(base + address, { headers: { cookie } });
        const text = await answer.text();
        if (!answer.ok) throw new Error(`${address} answered ${answer.status}: ${text.slice(0, 200)}`);
        return text.length;
      };
      const sql = new pg.Pool({ connectionString: url, max: 1 });
      const { rows } = await sql.query<{ id: string; shop: string }>(
        "select id, workshop_id as shop from system where name = 'Machine 500'",
      );
      const { id, shop } = rows[0] as { id: string; shop: string };
      const addresses: Readonly<Record<string, string>> = {
        list: '/systems',
        Today: '/today',
        system: `/systems/${id}`,
        history: `/systems/${id}/history`,
        search: '/search?q=Machine%20500',
        board: '/plan',
      };
      const statements = sqlOf(shop, id);
      const pages: PageFigures[] = [];
      for (const [name, address] of Object.entries(addresses)) {
        const bytes = await ask(address);
        const [own, bare]: [number[], number[]] = [[], []];
        // one after the other, so that whatever else the machine does happens to both
        for (let turn = 0; turn < TURNS.warm + TURNS.counted; turn += 1) {
          const answerMs = await milliseconds(() => ask(address));
          const sqlMs = await milliseconds(async () => {
            for (const statement of statements[name] ?? []) await sql.query(statement);
          });
          if (turn < TURNS.warm) continue;
          own.push(answerMs);
          bare.push(sqlMs);
        }
        pages.push({ name, kilobytes: bytes / 1000, p95Ms: p95(own), sqlP95Ms: p95(bare) });
      }
      await sql.end();
      const crowd = await ofCrowd(Object.values(addresses), ask);
      return { machines, fills: grown.fills, growS: grown.ms / 1000, pages, crowd, serverBytes: peakOf(server) };
    } finally {
      server?.kill();
    }
  });
}

/** Everybody asks for some page every two seconds, each at a moment of their own. */
async function ofCrowd(addresses: readonly string[], ask: (address: string) => Promise<number>): Promise<SizeFigures['crowd']> {
  const times: number[] = [];
  let failed = 0;
  const until = performance.now() + CROWD.forMs;
  const user = async (nth: number): Promise<void> => {
    await sleep((nth * CROWD.everyMs) / CROWD.users);
    for (let turn = nth; performance.now() < until; turn += 1) {
      const start = performance.now();
      await ask(addresses[turn % addresses.length] as string).then(
        () => times.push(performance.now() - start),
        () => (failed += 1),
      );
      await sleep(Math.max(0, CROWD.everyMs - (performance.now() - start)));
    }
  };
  await Promise.all(Array.from({ length: CROWD.users }, (_, nth) => user(nth)));
  return { users: CROWD.users, asked: times.length + failed, failed, p95Ms: p95(times) };
}
