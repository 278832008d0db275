import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestBench, type Visitor } from '../../../tests/integration/bench.js';
import { booked, commissioned, lotOf, type Lot } from '../../../tests/integration/led.js';

let bench: TestBench;
let lead: Visitor;
let lot: Lot;
let own: { systemId: string; loopId: string };
beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('At once');
  lot = await lotOf(lead, 'A1');
  own = await commissioned(bench, lead, 'Owl', lot);
});
afterAll(() => bench.close());

interface Row {
  readonly id: string;
  readonly version: number;
}
const made = async (path: string, body: object): Promise<Row> => (await lead.post<Row>(path, body)).body;

/** Each of these edits is made from a version; six people make it at once from the same one. */
const EDITS: Readonly<Record<string, () => Promise<{ path: string; body: object }>>> = {
  'the hand-over of a container': async () => {
    const can = await made('/waste', { label: 'Grey', kind: 'used-coolant', capacityMl: 20_000 });
    await made(`/waste/${can.id}/entries`, { volumeMl: 400, note: 'a jug' });
    return { path: `/waste/${can.id}/hand-over`, body: { on: '2026-03-01', to: 'the yard', documentNumber: 'W1', version: can.version } };
  },
  'an owner': async () => ({
    path: `/owners/${await lead.owner('Twice')}`,
    body: { name: 'Ada', email: null, phone: null, channel: 'phone', note: '', policy: null, version: 1 },
  }),
  'a lot of coolant': async () => {
    const fresh = await lotOf(lead, 'A2');
    return { path: `/coolant-lots/${fresh.lotId}`, body: { openedOn: null, keepsUntil: null, stockMl: 900, samplePlace: '', version: 1 } };
  },
  'a kept part': async () => {
    const part = await made('/kept-parts', {
      name: 'Pump',
      kind: 'removed',
      systemId: null,
      place: '',
      condition: '',
      heldMl: 0,
      lentTo: '',
      untilDay: null,
    });
    return { path: `/kept-parts/${part.id}/gone`, body: { where: 'given back', version: part.version } };
  },
  'a booked job': async () => {
    const job = await booked(lead, own, 'flush-refill');
    const { intake, estimate: told } = (await lead.get<{ intake: object; estimate: { priced: object } }>(`/jobs/${job.id}`)).body;
    // its price is the server's
    const { priced: _, ...estimate } = told;
    const { version } = (await lead.get<{ version: number }>(`/jobs/${job.id}`)).body;
    return {
      path: `/jobs/${job.id}`,
      body: {
        kind: 'flush-refill',
        partId: null,
        intake,
        estimate,
        neededBy: null,
        partsOn: null,
        dropOffOn: null,
        windows: [],
        note: 'later',
        version,
      },
    };
  },
  'a due date': async () => {
    const { dues } = (await lead.get<{ dues: (Row & { kind: string; dueOn: string })[] }>(`/systems/${own.systemId}`)).body;
    const due = dues.find(({ kind }) => kind === 'coolant-service') as Row & { dueOn: string };
    const until = new Date(Date.parse(due.dueOn) + 20 * 86_400_000).toISOString().slice(0, 10);
    return { path: `/due-items/${due.id}/postpone`, body: { version: due.version, until, reason: 'a film first', riskTold: true } };
  },
  'a case': async () => {
    const outline = { label: 'Tall', depthMm: 500, heightMm: 700, widthMm: 230, mounts: { roof: [30, 690, 15] } };
    const box = await made('/case-templates', outline);
    return { path: `/case-templates/${box.id}`, body: { ...outline, version: box.version } };
  },
  'how many kits there are': async () => ({
    path: '/kits',
    body: { kits: [], version: (await lead.get<{ workshopVersion: number }>('/plan')).body.workshopVersion },
  }),
  'what somebody can do': async () => {
    const [person] = (await lead.get<{ people: Row[] }>('/plan')).body.people;
    return { path: `/people/${person?.id}/skills`, body: { skills: null, version: person?.version } };
  },
};

describe('an edit that several make at once', () => {
  it.each(Object.keys(EDITS))('%s: one is taken, the others are told', async (what) => {
    const { path, body } = (await EDITS[what]?.()) as { path: string; body: object };
    const answers = await Promise.all(Array.from({ length: 6 }, () => lead.put(path, body)));
    expect([path, answers.map(({ status }) => status).sort()]).toEqual([path, [200, 409, 409, 409, 409, 409]]);
  });

  it('counts of the shelf lose nothing of it', async () => {
    const item = await made('/store/items', { name: 'Ring', kind: 'seal', unit: 'pcs', lot: '', count: 100, reorderAt: 2 });
    const answers = await Promise.all(
      Array.from({ length: 20 }, (_, n) => lead.post(`/store/items/${item.id}/moves`, { change: n % 2 === 0 ? -3 : 1, reason: 'counted' })),
    );
    expect(answers.every(({ status }) => status === 201)).toBe(true);
    const { rows } = await bench.pool.query<{ count: number }>('select count from store_item where id = $1', [item.id]);
    expect(rows[0]?.count).toBe(80);
  });

  it('a container never takes more than fits, however many pour', async () => {
    const can = await made('/waste', { label: 'Small', kind: 'mixed', capacityMl: 1000 });
    const answers = await Promise.all(Array.from({ length: 8 }, () => lead.post(`/waste/${can.id}/entries`, { volumeMl: 300, note: '' })));
    expect(answers.filter(({ status }) => status === 201)).toHaveLength(3);
    const { rows } = await bench.pool.query<{ sum: number }>('select sum(volume_ml) as sum from waste_entry where container_id = $1', [
      can.id,
    ]);
    expect(rows[0]?.sum).toBe(900);
  });
});
