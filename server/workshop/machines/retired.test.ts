import { afterAll, beforeAll, expect, it } from 'vitest';
import type { SystemPage } from '../../../core/workshop/machines/answers.js';
import { TestBench, type Visitor } from '../../../tests/integration/bench.js';
import { commissioned, lotOf } from '../../../tests/integration/led.js';

let bench: TestBench;
let lead: Visitor;
beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('Retires');
});
afterAll(() => bench.close());

async function setState(systemId: string, state: string): Promise<string> {
  const { id: _, workshopId: __, createdAt: ___, ...own } = (await lead.get<{ system: Record<string, unknown> }>(`/systems/${systemId}`)).body.system; // prettier-ignore
  expect((await lead.put(`/systems/${systemId}`, { ...own, state })).status).toBe(200);
  return (await lead.get<SystemPage>(`/systems/${systemId}`)).body.system.state;
}

it('a machine that comes back stands where it stood: filled it is in service, never filled it is planned', async () => {
  const planned = await lead.system('Never filled');
  await lead.loop(planned);
  const { systemId } = await commissioned(bench, lead, 'Filled', await lotOf(lead, 'C1'));
  const came = await lead.system('Filled elsewhere');
  const { id: loopId } = await lead.loop(came);
  await lead.post(`/loops/${loopId}/came-filled`, { productId: null, since: null });
  for (const [id, state] of [
    [planned, 'planned'],
    [systemId, 'in-service'],
    [came, 'in-service'],
  ] as const) {
    // prettier-ignore
    expect(await setState(id, 'retired')).toBe('retired');
    // whatever an older page says
    expect(await setState(id, 'in-service')).toBe(state);
  }
});
