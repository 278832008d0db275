import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { usualLoop } from '../../core/machine/catalogue/testLoops.js';
import { fuzz, FOREIGN, type FuzzFigures } from '../../tests/fuzz/fuzz.js';
import { TestBench, type Visitor } from '../../tests/integration/bench.js';
import { booked, commissioned, lotOf } from '../../tests/integration/led.js';

/** a short one with every test; `./lavacrum reliability` sends a hundred thousand */
const REQUESTS = Number(process.env.LAVACRUM_FUZZ ?? '1100');
const SEED = Number(process.env.LAVACRUM_SEED ?? '1');

let bench: TestBench;
let lead: Visitor;
let other: Visitor;
let figures: FuzzFigures;
let before: string;

/** One of everything that an id can name. */
async function furnish(who: Visitor, word: string): Promise<void> {
  const lot = await lotOf(who, word);
  const own = await commissioned(bench, who, word, lot);
  await booked(who, own, 'flush-refill');
  const loop = await who.loop(await who.system(`${word} two`), lot.productId);
  const run = (await who.run(loop.id)).body.run;
  await who.entry(run.id, { type: 'note', step: 'kit', text: word });
  await who.post('/store/items', { name: word, kind: 'seal', unit: 'pcs', lot: '', count: 12, reorderAt: 2 });
  await who.post('/waste', { label: word, kind: 'used-coolant', capacityMl: 20_000 });
  await who.post('/calendars', { personId: null });
  await who.post('/layouts', { name: word, note: '', file: usualLoop() });
  await who.post('/kept-parts', { name: word, kind: 'removed', systemId: own.systemId, place: word, condition: '', heldMl: 0, lentTo: '', untilDay: null }); // prettier-ignore
}
/** Everything of the other workshop, as one figure. */
async function foreignState(): Promise<string> {
  const { rows: tables } = await bench.pool.query<{ name: string }>(
    "select table_name as name from information_schema.columns where table_schema = 'public' and column_name = 'workshop_id' order by 1",
  );
  const states: string[] = [];
  for (const { name } of tables) {
    const { rows } = await bench.pool.query<{ hash: string }>(
      `select coalesce(md5(string_agg(md5(t::text), '' order by md5(t::text))), '') as hash from ${name} t where workshop_id = $1`,
      [other.workshopId],
    );
    states.push(`${name} ${rows[0]?.hash}`);
  }
  return states.join('\n');
}

beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('Fuzzed');
  other = await bench.workshop(FOREIGN);
  await furnish(lead, 'Owl');
  await furnish(other, FOREIGN);
  before = await foreignState();
  figures = await fuzz(bench, { requests: REQUESTS, seed: SEED, lead, other });
  if (process.env.LAVACRUM_FUZZ)
    process.stdout.write(`\n${JSON.stringify({ ...figures, failed: figures.failed.slice(0, 20) }, null, 1)}\n`);
}, 3_600_000);
afterAll(() => bench.close());

describe('made-up requests to every route', () => {
  it('never fail the server', () => {
    expect(figures.failed).toEqual([]);
    expect(bench.logged).toEqual([]);
  });

  it('reach what lies behind the checks: most routes take some of them', () => {
    expect(figures.withBody).toBeGreaterThan(45);
    expect(figures.answers['2xx'] ?? 0).toBeGreaterThan(REQUESTS / 10);
    // ten requests a route: which of them are taken changes with every route that is added
    if (REQUESTS >= 900) expect(figures.reached / figures.withBody).toBeGreaterThan(REQUESTS >= 10_000 ? 0.3 : 0.2);
  });

  it('tell nothing of another workshop, and change nothing there', async () => {
    expect(figures.foreign).toEqual([]);
    expect(await foreignState()).toBe(before);
  });

  it('leave a server that serves', async () => {
    expect((await other.get('/systems')).status).toBe(200);
    expect((await lead.get('/health')).status).toBe(200);
  });
});
