import { escalationWords, reasonWords } from '../../../core/edge/words/dates.js';
import type { Escalation } from '../../../core/workshop/due-dates/escalation.js';
import type { DateReason } from '../../../core/workshop/due-dates/facts.js';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';
import { commissioned, lotOf } from '../../../tests/integration/led.js';
import type { UsagePage } from '../../../core/workshop/usage/answers.js';

let bench: TestBench;
let lead: Visitor;
let systemId: string;
let today: string;

interface Page {
  system: Record<string, unknown> & { version: number };
  dues: {
    id: string;
    kind: string;
    dueOn: string;
    reason: DateReason;
    version: number;
    postponed: number;
    escalation: Escalation;
    estimated: boolean;
  }[];
  usage: UsagePage;
  attention: string;
  today: string;
}
const read = async (): Promise<Page> => (await lead.get<Page>(`/systems/${systemId}`)).body;
const due = async (kind: string): Promise<Page['dues'][number]> => {
  const found = (await read()).dues.find((each) => each.kind === kind);
  if (!found) throw new Error(`no ${kind}`);
  return found;
};
const plus = (days: number): string => new Date(Date.parse(today) + days * 86_400_000).toISOString().slice(0, 10);
const edit = async (more: object): Promise<number> => {
  const { id: _, workshopId: __, createdAt: ___, ...own } = (await read()).system;
  return (await lead.put(`/systems/${systemId}`, { ...own, ...more })).status;
};

beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('Usage');
  // a product whose sheet counts hours
  const lot = await lotOf(lead, 'U1', { sheetLifeMonths: 24, sheetLifeHours: 600 });
  ({ systemId } = await commissioned(bench, lead, 'Runner', lot));
  today = (await read()).today;
});
afterAll(() => bench.close());

describe('running hours', () => {
  it('are assumed, then the owner’s, then the meter’s; the date follows each time', async () => {
    expect(await due('coolant-service')).toMatchObject({ dueOn: plus(150), estimated: true });
    expect(await edit({ hoursPerDay: 6 })).toBe(200);
    expect(await due('coolant-service')).toMatchObject({ dueOn: plus(100), estimated: false });
    bench.wait(20 * 86_400);
    const meter = (on: string, hours: number) => ({ source: 'meter', fromOn: null, on, hours, meanCoolantC: null, note: '' });
    await lead.post(`/systems/${systemId}/usage`, meter(today, 1000));
    const second = await lead.post<{ id: string; moved: { dueOn: string }[] }>(`/systems/${systemId}/usage`, meter(plus(20), 1040));
    expect(second.body.moved.map(({ dueOn }) => dueOn)).toEqual([plus(300)]);
    expect(reasonWords((await due('coolant-service')).reason)).toContain('2 h a day by its meter');
    const { usage } = await read();
    expect(usage.usage.hoursPerDay.map(({ source, value }) => [source, value])).toEqual([
      ['meter', 2],
      ['owner', 6],
      ['default', 4],
    ]);
    await lead.put(`/usage-readings/${second.body.id}`, { struck: true });
    expect((await due('coolant-service')).dueOn).toBe(plus(100));
    await lead.put(`/usage-readings/${second.body.id}`, { struck: false });
    expect((await due('coolant-service')).dueOn).toBe(plus(300));
  });

  it('refuse a reading from the future whole, and are hidden from other workshops', async () => {
    const future = { source: 'meter', fromOn: null, on: plus(300), hours: 1, meanCoolantC: null, note: '' };
    expect(errorOf(await lead.post(`/systems/${systemId}/usage`, future)).message).toContain('future');
    const stranger = await bench.workshop('Elsewhere');
    expect((await stranger.post(`/systems/${systemId}/usage`, { ...future, on: today })).status).toBe(404);
    const own = (await read()).usage.readings[0] as { id: string };
    expect((await stranger.put(`/usage-readings/${own.id}`, { struck: true })).status).toBe(404);
    expect((await read()).usage.readings).toHaveLength(2);
  });
});

describe('dust', () => {
  it('is due by where the machine stands, and starts anew once somebody cleaned it', async () => {
    const before = await due('dust-clean');
    expect(reasonWords(before.reason)).toContain('an ordinary room: 6 months');
    expect(await edit({ dustPlace: 'dusty' })).toBe(200);
    const sooner = await due('dust-clean');
    expect(sooner.dueOn < before.dueOn).toBe(true);
    const cleaned = await lead.put(`/due-items/${sooner.id}/close`, {
      outcome: 'done',
      levelChangeMm: null,
      note: 'at its owner’s',
      version: sooner.version,
    });
    expect(cleaned.status).toBe(200);
    const next = await due('dust-clean');
    expect(next.dueOn > sooner.dueOn).toBe(true);
    expect((await read()).dues.filter(({ kind }) => kind === 'dust-clean')).toHaveLength(1);
    expect(await lead.history(systemId)).toContainEqual(
      expect.objectContaining({ title: 'Fins and filters cleaned', text: 'Done (at its owner’s)' }),
    );
  });
});

describe('the hot months', () => {
  it('bring services forward for the whole workshop, and let them go again', async () => {
    const { workshop } = (await lead.get<{ workshop: Record<string, unknown> & { id: string } }>('/workshop')).body;
    const { id: _, rates: __, contact: ___, reading: ____, heatLimits: _____, door: ______, ...own } = workshop;
    const before = await due('coolant-service');
    const month = Number(before.dueOn.slice(5, 7));
    const season = { hotFromMonth: month, hotUntilMonth: month };
    expect((await lead.put('/workshop', { ...own, ...season })).status).toBe(200);
    const early = await due('coolant-service');
    expect(early.dueOn).toBe(new Date(Date.parse(`${before.dueOn.slice(0, 8)}01`) - 86_400_000).toISOString().slice(0, 10));
    expect(reasonWords(early.reason)).toContain('before the hot months');
    const half = await lead.put('/workshop', { ...own, version: 2, hotFromMonth: 6, hotUntilMonth: null });
    expect(errorOf(half).message).toContain('first hot month');
    expect((await lead.put('/workshop', { ...own, version: 2, hotFromMonth: null, hotUntilMonth: null })).status).toBe(200);
    expect((await due('coolant-service')).dueOn).toBe(before.dueOn);
  });
});

describe('putting off', () => {
  const putOff = async (who: Visitor, until: string) => {
    const { id, version } = await due('coolant-service');
    return who.put(`/due-items/${id}/postpone`, { version, until, reason: 'needs it', riskTold: true });
  };
  it('grows louder each time, and the third time takes the lead', async () => {
    const level = await due('settling-check');
    await lead.put(`/due-items/${level.id}/close`, { outcome: 'settled', levelChangeMm: 0, note: '', version: level.version });
    const first = (await due('coolant-service')).dueOn;
    const after = (days: number): string => new Date(Date.parse(first) + days * 86_400_000).toISOString().slice(0, 10);
    await putOff(lead, after(10));
    expect(escalationWords((await due('coolant-service')).escalation)).toBe(
      'put off once, 10 days past its clock: the owner knows the risk',
    );
    await putOff(lead, after(20));
    expect((await read()).attention).toBe('put-off');
    await putOff(lead, after(30));
    expect(escalationWords((await due('coolant-service')).escalation)).toContain('only the lead');
    const hand = await lead.colleague('front-desk');
    expect(errorOf(await putOff(hand, after(40))).message).toContain('Ask the lead');
    expect((await putOff(lead, after(40))).status).toBe(200);
    expect(reasonWords((await due('coolant-service')).reason).match(/put off by the owner/g)).toHaveLength(1);
  });
});
