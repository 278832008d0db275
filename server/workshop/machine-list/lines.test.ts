import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addDays } from '../../../core/base/units/calendar.js';
import type { SystemLine, SystemsAnswer, TodayAnswer } from '../../../core/workshop/machines/answers.js';
import { ATTENTION_ORDER } from '../../../core/workshop/due-dates/attention.js';
import { nameKey } from '../../../core/workshop/machine-list/nameKey.js';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
let desk: Visitor;
const TODAY = '2026-03-10';
beforeAll(async () => {
  bench = await TestBench.open();
  desk = await bench.workshop('Lines');
  const productId = await desk.coolant({ name: 'Pale Heron' });
  // thirty machines whose coolant falls due from long ago to far off, several on one day
  for (let n = 1; n <= 30; n += 1) {
    const systemId = await desk.system(`Machine ${n}`, await desk.owner(['Ash', 'Birch', 'Cedar', 'Dogwood', 'Elder'][n % 5]));
    const { id: loopId } = await desk.loop(systemId, productId);
    await bench.pool.query("update system set state = 'in-service', tag = $2 where id = $1", [systemId, `T-${n}`]);
    if (n > 25) continue;
    await bench.pool.query(
      `insert into due_item (workshop_id, system_id, loop_id, kind, due_on, reason, clocks)
       select workshop_id, system_id, id, 'coolant-service', $2, '{"why": "said", "text": ""}', '[]' from loop where id = $1`,
      [loopId, addDays(TODAY, 12 * Math.floor(n / 2) - 60)],
    );
  }
});
afterAll(() => bench.close());

const page = async (query: Record<string, string | number> = {}, who = desk): Promise<SystemsAnswer> =>
  (await who.get<SystemsAnswer>(`/systems?${new URLSearchParams(Object.entries(query).map(([key, value]) => [key, String(value)]))}`)).body; // prettier-ignore

/** Every page of a list, one after the other. */
async function all(query: Record<string, string | number> = {}): Promise<SystemLine[]> {
  const lines: SystemLine[] = [];
  for (let after: string | null | undefined; after !== null;) {
    const answer: SystemsAnswer = await page({ ...query, ...(after ? { after } : {}) });
    lines.push(...answer.systems);
    after = answer.after;
  }
  return lines;
}
const keyOf = ({ attention, nextDueOn, name }: SystemLine): string =>
  `${String(ATTENTION_ORDER.indexOf(attention)).padStart(2, '0')} ${nextDueOn ?? '9999-99-99'} ${nameKey(name)}`;

describe('the list of machines, page by page', () => {
  it('brings each once, what needs attention first, then by date, then by name', async () => {
    const lines = await all({ limit: 7 });
    expect(new Set(lines.map(({ id }) => id)).size).toBe(30);
    expect(lines.map(keyOf)).toEqual(lines.map(keyOf).sort());
    expect(lines[0]).toMatchObject({ name: 'Machine 1', attention: 'overdue', coolant: { name: 'Pale Heron' } });
    expect(lines).toEqual(await all({ limit: 200 }));
  });

  it('counts what needs attention and what was found, on its first page', async () => {
    const first = await page({ limit: 5 });
    expect(first.found).toBe(30);
    const lines = await all();
    for (const attention of ATTENTION_ORDER)
      expect(first.counts?.[attention] ?? 0, attention).toBe(lines.filter((line) => line.attention === attention).length);
    const overdue = await page({ attention: 'overdue', limit: 2 });
    expect([overdue.found, overdue.systems.length]).toEqual([first.counts?.overdue, 2]);
    const next = await page({ limit: 5, after: first.after as string });
    expect([next.counts, next.found]).toEqual([null, null]);
  });

  it('finds by every word: names, owner, tag, coolant, digits of a phone', async () => {
    expect((await all({ q: 'pale CÉDAR', limit: 2 })).length).toBe(6);
    expect((await page({ q: 't-17' })).systems.map(({ name }) => name)).toEqual(['Machine 17']);
    expect(await page({ q: '351555123' })).toMatchObject({ found: 30 });
    expect(await page({ q: 'machine', attention: 'unknown' })).toMatchObject({ found: 5 });
    expect(await page({ q: 'nobody' })).toMatchObject({ found: 0, systems: [], after: null });
  });

  it('Today holds what is over and what comes near, and no more of them than a page', async () => {
    const today = (await desk.get<TodayAnswer>('/today')).body;
    const lines = await all();
    expect(today.overdue.found).toBe(lines.filter(({ attention }) => attention === 'overdue').length);
    const horizon = addDays(TODAY, 45);
    const coming = lines.filter((line) => line.attention !== 'overdue' && line.nextDueOn !== null && line.nextDueOn <= horizon);
    expect(today.coming.systems).toEqual(coming);
    expect([today.coming.found, today.count]).toEqual([coming.length, 30]);
    expect(await all({ coming: 'true', limit: 2 })).toEqual(coming);
  });

  it('refuses a place that is none', async () => {
    const answer = await desk.get('/systems?after=next');
    expect([answer.status, errorOf(answer).path]).toEqual([422, 'after']);
  });
});

describe('a line is true when it is read', () => {
  const lineOf = async (name: string): Promise<SystemLine> =>
    (await page({ q: name, limit: 200 })).systems.find((line) => line.name === name) as SystemLine;

  it('after anything was written that it tells of', async () => {
    const { id } = await lineOf('Machine 30');
    const loopId = (await desk.get<{ loops: { id: string }[] }>(`/systems/${id}`)).body.loops[0]?.id;
    expect((await lineOf('Machine 30')).attention).toBe('unknown');
    const productId = await desk.coolant({ name: 'Slate' });
    await desk.post(`/systems/${id}/services`, { loopId, kind: 'drain-refill', doneOn: '2026-03-09', productId, drainedMl: null, pouredMl: 700, note: '', finding: '' }); // prettier-ignore
    expect(await lineOf('Machine 30')).toMatchObject({ attention: 'settling', coolant: { name: 'Slate' }, filledOn: '2026-03-09' });
    expect((await page({ q: 'slate' })).systems.map(({ name }) => name)).toEqual(['Machine 30']);
    await bench.pool.query("update coolant_product set name = 'Basalt' where name = 'Slate'");
    expect(await page({ q: 'slate' })).toMatchObject({ found: 0 });
    expect(await page({ q: 'basalt' })).toMatchObject({ found: 1 });
    await bench.pool.query('update due_item set due_on = $2 where system_id = $1', [id, '2026-02-01']);
    expect((await lineOf('Machine 30')).attention).toBe('overdue');
    await bench.pool.query("update due_item set state = 'closed', closed_at = now() where system_id = $1", [id]);
    expect((await lineOf('Machine 30')).attention).toBe('unknown');
  });

  it('for everybody, whoever reads first: two at the same moment see the same', async () => {
    const { id } = await lineOf('Machine 29');
    for (let round = 0; round < 5; round += 1) {
      await bench.pool.query('update system set name = $2 where id = $1', [id, `Machine 29 ${round}`]);
      const answers = await Promise.all(Array.from({ length: 6 }, () => page({ q: 'T-29' })));
      expect(new Set(answers.flatMap(({ systems }) => systems.map(({ name }) => name)))).toEqual(new Set([`Machine 29 ${round}`]));
    }
    await bench.pool.query("update system set name = 'Machine 29' where id = $1", [id]);
  });

  it('when the day turns and nobody writes anything, forwards and back', async () => {
    const before = await page();
    const day = bench.nowMs;
    bench.wait(20 * 86_400);
    const later = await page();
    expect(later.counts?.overdue ?? 0).toBeGreaterThan(before.counts?.overdue ?? 0);
    expect((await all({ limit: 200 })).map(keyOf)).toEqual((await all({ limit: 3 })).map(keyOf));
    for (const { id, attention } of await all())
      expect((await desk.get<{ attention: string }>(`/systems/${id}`)).body.attention).toBe(attention);
    bench.nowMs = day;
    expect((await page()).counts).toEqual(before.counts);
  });

  it('is gone with its machine', async () => {
    const workshop = await bench.workshop('Gone');
    const systemId = await workshop.system('Short-lived');
    expect(await page({}, workshop)).toMatchObject({ found: 1 });
    await bench.pool.query('delete from system where id = $1', [systemId]);
    expect(await page({}, workshop)).toMatchObject({ found: 0, systems: [] });
    expect((await bench.pool.query("select 1 from search_text where kind = 'machine' and ref = $1", [systemId])).rowCount).toBe(0);
  });

  it('is found by nobody else', async () => {
    const other = await bench.workshop(`Other ${randomUUID().slice(0, 4)}`);
    expect(await page({ q: 'machine' }, other)).toMatchObject({ found: 0, systems: [] });
  });
});
