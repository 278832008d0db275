import type { DateReason } from '../../../core/workshop/due-dates/facts.js';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
let lead: Visitor;
let systemId: string;
let productId: string;

interface Due {
  id: string;
  kind: string;
  dueOn: string;
  reason: DateReason;
  version: number;
}
interface Moved {
  systemId: string;
  systemName: string;
  ownerName: string;
  phone: string;
  before: string;
  dueOn: string;
}

beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('Dates');
  productId = await lead.coolant({ name: 'Emberlow Red', sheetLifeMonths: 12 });
  systemId = await lead.system('Red tower');
  await fillOn(systemId, productId);
});
afterAll(() => bench.close());

/** A loop of the system, filled on the first of March. */
async function fillOn(system: string, product: string): Promise<void> {
  const { id: loopId } = await lead.loop(system, product);
  await bench.pool.query("update system set state = 'in-service' where id = $1", [system]);
  const body = {
    loopId,
    kind: 'drain-refill',
    doneOn: '2026-03-01',
    productId: product,
    drainedMl: 690,
    pouredMl: 700,
    note: '',
    finding: '',
  };
  expect((await lead.post(`/systems/${system}/services`, body)).status).toBe(201);
}

const service = async (): Promise<Due> =>
  (await lead.get<{ dues: Due[] }>(`/systems/${systemId}`)).body.dues.find(({ kind }) => kind === 'coolant-service') as Due;
const limit = (months: number | null, version: number) =>
  lead.put<{ moved: Moved[] }>(`/coolants/${productId}/limit`, { version, sheetLifeMonths: months });

describe('a limit that changes after loops were filled', () => {
  it('is tried first: whose dates would move is said, and nothing is written', async () => {
    const before = await service();
    const trial = await lead.post<{ moved: Moved[] }>(`/coolants/${productId}/limit/trial`, { version: 1, sheetLifeMonths: 4 });
    expect(trial.body.moved.map(({ dueOn }) => dueOn)).toEqual(['2026-07-01']);
    expect((await service()).dueOn).toBe(before.dueOn);
    expect((await lead.get<{ products: { version: number }[] }>('/coolants')).body.products[0]?.version).toBe(1);
  });

  it('dates every machine anew that holds the product, and lists whom to call', async () => {
    expect((await service()).dueOn).toBe('2027-03-01');
    const { status, body } = await limit(4, 1);
    expect(status).toBe(200);
    expect(body.moved).toMatchObject([
      { systemId, systemName: 'Red tower', ownerName: 'Ada Fernwick', phone: '+351 555 123', before: '2027-03-01', dueOn: '2026-07-01' },
    ]);
    expect(await service()).toMatchObject({ dueOn: '2026-07-01', reason: { why: 'sheet-life', product: 'Emberlow Red', months: 4 } });
  });

  it('said again moves nothing; one that is stale is refused with what stands now', async () => {
    expect((await limit(4, 2)).body.moved).toEqual([]);
    const stale = await limit(9, 1);
    expect(stale.status).toBe(409);
    expect((await service()).dueOn).toBe('2026-07-01');
  });

  it('ends a postponement that it overtakes, and leaves one that it does not', async () => {
    const before = await service();
    await lead.put(`/due-items/${before.id}/postpone`, {
      version: before.version,
      until: '2026-09-01',
      reason: 'needs it for a film',
      riskTold: true,
    });
    expect((await service()).dueOn).toBe('2026-09-01');
    expect((await limit(24, 3)).body.moved.map(({ dueOn }) => dueOn)).toEqual(['2026-09-01']);
    expect((await limit(3, 4)).body.moved).toMatchObject([{ before: '2026-09-01', dueOn: '2026-06-01' }]);
    expect((await service()).reason).toMatchObject({ why: 'overtaken', agreed: '2026-09-01', first: { why: 'sheet-life', months: 3 } });
  });

  it('reaches no other workshop', async () => {
    const stranger = await bench.workshop('Elsewhere');
    const answer = await stranger.put(`/coolants/${productId}/limit`, { version: 5, sheetLifeMonths: 1 });
    expect(answer.status).toBe(404);
    expect(errorOf(answer).message).toMatch(/coolant/i);
  });
});

describe('a policy that changes', () => {
  it('dates what it counts for', async () => {
    const other = await lead.coolant({ name: 'Long clear', sheetLifeMonths: 24 });
    const machine = await lead.system('Slow tower');
    await fillOn(machine, other);
    const read = async () =>
      (await lead.get<{ system: Record<string, unknown> & { version: number }; dues: Due[] }>(`/systems/${machine}`)).body;
    const dueOn = async (): Promise<string | undefined> => (await read()).dues.find(({ kind }) => kind === 'coolant-service')?.dueOn;
    expect(await dueOn()).toBe('2027-03-01');
    const { system } = await read();
    const { id: _, workshopId: __, createdAt: ___, ...own } = system as Record<string, unknown>;
    expect((await lead.put(`/systems/${machine}`, { ...own, policy: 'six-months' })).status).toBe(200);
    expect(await dueOn()).toBe('2026-09-01');
  });
});

describe('a limit that was changed', () => {
  interface Change {
    id: string;
    moved: { id: string; dueOn: string }[];
    told: string[];
    canUndo: boolean;
    undoneAt: string | null;
  }
  let coolant: string;
  let tower: string;
  const changes = async (): Promise<Change[]> => (await lead.get<{ changes: Change[] }>(`/coolants/${coolant}/limit-changes`)).body.changes;
  const dueOn = async (): Promise<string | undefined> =>
    (await lead.get<{ dues: Due[] }>(`/systems/${tower}`)).body.dues.find(({ kind }) => kind === 'coolant-service')?.dueOn;
  beforeAll(async () => {
    coolant = await lead.coolant({ name: 'Told Blue', sheetLifeMonths: 10 });
    tower = await lead.system('Blue tower');
    await fillOn(tower, coolant);
  });

  it('keeps whose dates moved and who was told, and is written to those who like e-mail, once', async () => {
    await lead.put(`/coolants/${coolant}/limit`, { version: 1, sheetLifeMonths: 5 });
    const [change] = (await changes()) as [Change];
    const item = change.moved[0]?.id ?? '';
    const told = await lead.put<{ changes: Change[] }>(`/limit-changes/${change.id}/told`, { item, told: true });
    expect(told.body.changes[0]?.told).toEqual([item]);
    expect((await lead.put(`/limit-changes/${change.id}/told`, { item: coolant, told: true })).status).toBe(404);
    await lead.put(`/limit-changes/${change.id}/told`, { item, told: false });
    expect((await lead.post<{ written: number }>(`/limit-changes/${change.id}/letters`, {})).body.written).toBe(0);
    expect(
      (await (await bench.workshop('Not theirs')).get<{ changes: Change[] }>(`/coolants/${coolant}/limit-changes`)).body.changes,
    ).toEqual([]);
  });

  it('is taken back with its dates, the newest only', async () => {
    const before = await dueOn();
    await lead.put(`/coolants/${coolant}/limit`, { version: 2, sheetLifeMonths: 2 });
    expect(await dueOn()).not.toBe(before);
    const [newest, older] = await changes();
    expect([newest?.canUndo, older?.canUndo]).toEqual([true, false]);
    expect((await lead.post(`/limit-changes/${older?.id}/undo`, {})).status).toBe(409);
    expect((await lead.post(`/limit-changes/${newest?.id}/undo`, {})).status).toBe(201);
    expect(await dueOn()).toBe(before);
    expect((await changes()).map(({ undoneAt, canUndo }) => [undoneAt !== null, canUndo])).toEqual([
      [true, false],
      [false, true],
    ]);
    expect((await (await lead.colleague('technician')).post(`/limit-changes/${older?.id}/undo`, {})).status).toBe(403);
  });
});
