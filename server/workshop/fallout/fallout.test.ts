import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { FalloutAnswer } from '../../../core/workshop/fallout/answers.js';
import type { SystemPage } from '../../../core/workshop/machines/answers.js';
import { TestBench, type Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
let lead: Visitor;
let systemId: string;
let loopId: string;
let productId: string;
beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('Pearl');
  productId = await lead.coolant({ name: 'Chalk', coolantClass: 'opaque' });
  systemId = await lead.system('Window tower');
  ({ id: loopId } = await lead.loop(systemId, productId));
  await bench.pool.query("update system set state = 'in-service' where id = $1", [systemId]);
  await service('2026-03-01');
});
afterAll(() => bench.close());

const service = async (doneOn: string) => {
  const body = { loopId, kind: 'drain-refill', doneOn, productId, drainedMl: 690, pouredMl: 700, note: '', finding: '' };
  expect((await lead.post(`/systems/${systemId}/services`, body)).status).toBe(201);
};
interface Due {
  id: string;
  kind: string;
  dueOn: string;
  version: number;
}
const dueOf = async (kind: string): Promise<Due | undefined> =>
  (await lead.get<{ dues: Due[] }>(`/systems/${systemId}`)).body.dues.find((due) => due.kind === kind);
/** as the machine's page tells it */
const looks = async (): Promise<FalloutAnswer['looks']> =>
  (await lead.get<SystemPage>(`/systems/${systemId}`)).body.loops.find(({ id }) => id === loopId)?.fallout.looks ?? [];
const seen = (stage: string, on: string, id: string = randomUUID(), who = lead) =>
  who.post<FalloutAnswer>(`/loops/${loopId}/fallout`, { id, stage, on, note: '' });
const runs = async (hoursPerDay: number | null): Promise<void> => {
  const { system } = (await lead.get<{ system: { version: number; ownerId: string } }>(`/systems/${systemId}`)).body;
  const body = {
    ownerId: system.ownerId,
    name: 'Window tower',
    caseText: '',
    builtBy: '',
    hoursPerDay,
    policy: null,
    note: '',
    state: 'in-service',
    version: system.version,
  };
  const saved = await lead.put(`/systems/${systemId}`, body);
  expect(saved.status, JSON.stringify(saved.body)).toBe(200);
};

describe('fallout of a suspension', () => {
  it('is written down once, calls it in, and struck out it does not', async () => {
    expect((await dueOf('coolant-service'))?.dueOn).toBe('2026-06-01');
    const id = randomUUID();
    const { status, body } = await seen('comes-back', '2026-03-08', id);
    expect(status).toBe(201);
    expect(body).toMatchObject({ filledOn: '2026-03-01', looks: [{ id, stage: 'comes-back', on: '2026-03-08' }] });
    expect((await seen('comes-back', '2026-03-08', id)).body.looks).toHaveLength(1);
    expect((await dueOf('coolant-service'))?.dueOn).toBe('2026-04-07');
    await lead.delete(`/fallout-looks/${id}`);
    expect((await dueOf('coolant-service'))?.dueOn).toBe('2026-06-01');
    await lead.post(`/fallout-looks/${id}/back`, {});
    expect((await dueOf('coolant-service'))?.dueOn).toBe('2026-04-07');
  });

  it('that stays is due at once, and ends the life of that fill for what the workshop learns', async () => {
    await seen('stays', '2026-03-09');
    expect((await dueOf('coolant-service'))?.dueOn).toBe('2026-03-09');
    const history = await lead.get<{ fallout: object }>(`/loops/${loopId}/history`);
    expect(history.body.fallout).toEqual({ stage: 'stays', on: '2026-03-09' });
    const lives = await lead.post<{ groups: { failed: number }[] }>('/learned-lives', {});
    expect(lives.body.groups.some(({ failed }) => failed === 1)).toBe(true);
  });

  it('belongs to the liquid that was inside: the next fill begins without', async () => {
    await service('2026-03-10');
    expect((await dueOf('coolant-service'))?.dueOn).toBe('2026-06-10');
  });

  it('is refused on a day that has not come, and invisible to others', async () => {
    expect((await seen('stays', '2027-01-01')).status).toBe(422);
    expect((await seen('melts', '2026-03-09')).status).toBe(422);
    const other = await bench.workshop('Elsewhere');
    expect((await seen('stays', '2026-03-09', randomUUID(), other)).status).toBe(404);
  });
});

describe('a suspension at rest', () => {
  it('owes a stirring run while its machine stands, dated on from each, and none while it runs', async () => {
    expect(await dueOf('stirring')).toBeUndefined();
    await runs(0);
    const first = (await dueOf('stirring')) as Due;
    expect(first.dueOn).toBe('2026-03-24');
    bench.nowMs += 5 * 86_400_000;
    const done = { version: first.version, outcome: 'done', levelChangeMm: null, note: 'moved again' };
    expect((await lead.put(`/due-items/${first.id}/close`, done)).status).toBe(200);
    expect((await dueOf('stirring'))?.dueOn).toBe('2026-03-29');
    expect((await lead.history(systemId)).some(({ title }) => title === 'Stirred')).toBe(true);
    await runs(4);
    expect(await dueOf('stirring')).toBeUndefined();
    await runs(0);
    await service('2026-03-15');
    expect((await dueOf('stirring'))?.dueOn).toBe('2026-03-29');
  });

  it('what is seen as it comes in is written down with the booking', async () => {
    const before = (await looks()).length;
    const job = {
      loopId,
      kind: 'flush-refill',
      partId: null,
      wanted: null,
      productId: null,
      beside: [],
      intake: {
        symptom: '',
        condition: '',
        signs: ['settles-back', 'dust'],
        dataSafe: 'unknown',
        signsIn: '',
        flowLph: null,
        colour: null,
      },
      estimate: { hours: 2, partsText: '', coolantMl: 800, priceText: '', parts: [] },
      neededBy: null,
      partsOn: null,
      dropOffOn: null,
      windows: [],
      note: '',
      here: true,
    };
    const booked = await lead.post(`/systems/${systemId}/jobs`, job);
    expect(booked.status, JSON.stringify(booked.body)).toBe(201);
    const after = await looks();
    expect(after).toHaveLength(before + 1);
    expect(after[0]).toMatchObject({ stage: 'comes-back', on: '2026-03-15' });
  });
});
