import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { guessMapping } from '../../../core/workshop/importing/fields.js';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
let lead: Visitor;
beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('Imports');
});
afterAll(() => bench.close());

interface Counts {
  owners: number;
  systems: number;
  refused: { line: number; field: string }[];
}
const mapping = guessMapping(['Owner', 'Phone', 'E-mail', 'System']);
const rows = [
  ['Ada Fernwick', '+351 555 123', 'ada@x.example', 'Tower'],
  ['Ada Fernwick', '+351 555 123', '', 'Small black'],
  ['', '', '', 'Nobody’s'],
  ['Bo Larch', '', 'bo@x.example', 'Attic'],
];
const send = (dryRun: boolean, key?: string, more: object = {}) => lead.post<Counts>('/imports', { rows, mapping, dryRun, ...more }, key);
const names = async (): Promise<string[]> =>
  (await lead.get<{ systems: { name: string }[] }>('/systems')).body.systems.map(({ name }) => name).sort();

describe('a table of machines', () => {
  it('is tried without anything being written', async () => {
    const { status, body } = await send(true);
    expect(status).toBe(201);
    expect(body).toMatchObject({ owners: 2, systems: 3, refused: [{ line: 4, field: 'Owner' }] });
    expect(await names()).toEqual([]);
  });

  it('is written once, even when sent twice with one key', async () => {
    const key = randomUUID();
    const answers = await Promise.all([send(false, key), send(false, key)]);
    expect(answers.map(({ body }) => body.systems)).toEqual([3, 3]);
    expect(await names()).toEqual(['Attic', 'Small black', 'Tower']);
    const { owners } = (await lead.get<{ owners: { name: string; channel: string }[] }>('/owners')).body;
    expect(owners.map(({ name, channel }) => [name, channel])).toEqual([['Ada Fernwick', 'phone'], ['Bo Larch', 'email']]); // prettier-ignore
  });

  it('brings nothing a second time: machines that are there are refused by line', async () => {
    expect((await send(false)).body).toMatchObject({
      owners: 0,
      systems: 0,
      refused: [{ line: 2 }, { line: 3 }, { line: 4 }, { line: 5 }],
    });
    expect(await names()).toHaveLength(3);
  });

  it('without a column for the owner is refused, and says so', async () => {
    const refused = await send(true, undefined, { mapping: { ...mapping, owner: null } });
    expect(refused.status).toBe(422);
    expect(errorOf(refused).message).toBe('Say which column holds: Owner.');
  });

  it('stays in its workshop', async () => {
    const stranger = await bench.workshop('Elsewhere');
    expect((await stranger.get<{ systems: unknown[] }>('/systems')).body.systems).toEqual([]);
  });
});
