import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { SystemPage } from '../../../core/workshop/machines/answers.js';
import { openDatabase, type Database } from '../../base/database/client.js';
import { TestBench, type Visitor } from '../../../tests/integration/bench.js';
import { FILLS_EACH, grow } from './grow.js';

let bench: TestBench;
let lead: Visitor;
let database: Database;
beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('Full');
  database = openDatabase(bench.pool);
});
afterAll(() => bench.close());

describe('a workshop that is grown', () => {
  it('has so many machines with their owners, loops and fills, and dates by its own rules', async () => {
    const made = await grow(database, 30, new Date(bench.nowMs));
    expect(made).toMatchObject({ machines: 30, fills: 30 * FILLS_EACH });
    expect(await bench.count('system')).toBe(30);
    expect(await bench.count('owner')).toBe(3);
    const systems = (await lead.get<{ systems: { id: string; name: string; nextDueOn: string | null }[] }>('/systems')).body.systems;
    expect(systems.every(({ nextDueOn }) => nextDueOn !== null)).toBe(true);
    const one = systems.find(({ name }) => name === 'Machine 7');
    const page = (await lead.get<SystemPage>(`/systems/${one?.id}`)).body;
    // the date is reckoned, not the one that stood there first
    expect(page.dues.find(({ kind }) => kind === 'coolant-service')?.clocks.length).toBeGreaterThan(0);
    expect((await lead.history(page.system.id)).filter(({ kind }) => kind === 'job')).toHaveLength(FILLS_EACH);
  });

  it('fills none that has machines, and no second one', async () => {
    await expect(grow(database, 5, new Date(bench.nowMs))).rejects.toThrow('has machines');
    await expect(grow(database, 0, new Date(bench.nowMs))).rejects.toThrow('say how many');
    await bench.workshop('Another');
    await expect(grow(database, 5, new Date(bench.nowMs))).rejects.toThrow('several workshops');
  });
});
