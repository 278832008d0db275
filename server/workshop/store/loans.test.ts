import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';
import { booked, commissioned, lotOf } from '../../../tests/integration/led.js';

let bench: TestBench;
let desk: Visitor;
let today: string;
interface Loans {
  lent: { name: string; untilDay: string } | null;
  free: { id: string; name: string }[];
}
const jobs: { id: string; systemId: string }[] = [];
const loansOf = async (index: number): Promise<Loans> => (await desk.get<{ loans: Loans }>(`/jobs/${jobs[index]?.id}`)).body.loans;

beforeAll(async () => {
  bench = await TestBench.open();
  desk = await bench.workshop('Loans');
  today = (await desk.get<{ today: string }>('/systems')).body.today;
  const lot = await lotOf(desk, 'N1');
  for (const name of ['One', 'Two']) {
    const machine = await commissioned(bench, desk, name, lot);
    jobs.push({ id: (await booked(desk, machine, 'strip-clean')).id, systemId: machine.systemId });
  }
  const tower = {
    name: 'Spare tower',
    kind: 'loan-machine',
    systemId: null,
    place: '',
    condition: 'good',
    heldMl: 0,
    lentTo: '',
    untilDay: null,
  };
  await desk.post('/kept-parts', tower);
});
afterAll(() => bench.close());

describe('a loan machine', () => {
  it('goes home with one owner, is seen at job, system and store, and stands free again once it is back', async () => {
    const [spare] = (await loansOf(0)).free;
    const lent = await desk.put<Loans>(`/jobs/${jobs[0]?.id}/loan`, { keptPartId: spare?.id, untilDay: today });
    expect(lent.body).toMatchObject({ lent: { name: 'Spare tower', untilDay: today }, free: [] });
    expect((await loansOf(1)).free).toEqual([]);
    expect((await desk.get<{ loan: { name: string } }>(`/systems/${jobs[0]?.systemId}`)).body.loan.name).toBe('Spare tower');
    const store = await desk.get<{ kept: { name: string; lentTo: string }[] }>('/store');
    expect(store.body.kept).toMatchObject([{ name: 'Spare tower', lentTo: 'Ada Fernwick' }]);
    expect(errorOf(await desk.put(`/jobs/${jobs[1]?.id}/loan`, { keptPartId: spare?.id, untilDay: today })).message).toContain(
      'stands free',
    );
    await desk.delete(`/jobs/${jobs[0]?.id}/loan`);
    expect((await loansOf(1)).free.map(({ name }) => name)).toEqual(['Spare tower']);
    expect((await desk.delete(`/jobs/${jobs[0]?.id}/loan`)).status).toBe(404);
  });

  it('is not lent into the past, nor by another workshop', async () => {
    const [spare] = (await loansOf(0)).free;
    expect(errorOf(await desk.put(`/jobs/${jobs[0]?.id}/loan`, { keptPartId: spare?.id, untilDay: '2020-01-01' })).path).toBe('untilDay');
    const stranger = await bench.workshop('Elsewhere');
    expect((await stranger.put(`/jobs/${jobs[0]?.id}/loan`, { keptPartId: spare?.id, untilDay: today })).status).toBe(404);
  });
});
