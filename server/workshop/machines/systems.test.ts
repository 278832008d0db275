import { reasonWords } from '../../../core/edge/words/dates.js';
import type { DateReason } from '../../../core/workshop/due-dates/facts.js';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
let desk: Visitor;
beforeAll(async () => {
  bench = await TestBench.open();
  desk = await bench.workshop('Desk');
});
afterAll(() => bench.close());

interface Line {
  id: string;
  name: string;
  attention: string;
  nextDueOn: string | null;
  ownerName: string;
}
const lines = async (who = desk): Promise<Line[]> => (await who.get<{ systems: Line[] }>('/systems')).body.systems;

describe('systems and their owners', () => {
  it('are entered, listed and read back', async () => {
    const id = await desk.system('Glass tower');
    expect((await lines()).find((line) => line.id === id)).toMatchObject({
      name: 'Glass tower',
      attention: 'planned',
      ownerName: 'Ada Fernwick',
    });
    const page = (await desk.get<{ system: { name: string }; owner: { phone: string } }>(`/systems/${id}`)).body;
    expect(page).toMatchObject({
      system: { name: 'Glass tower' },
      owner: { phone: '+351 555 123' },
    });
  });

  it('refuse an owner who is not there', async () => {
    const answer = await desk.post('/systems', {
      ownerId: randomUUID(),
      name: 'X',
      caseText: '',
      builtBy: '',
      hoursPerDay: null,
      policy: null,
      note: '',
    });
    expect(answer.status).toBe(404);
  });

  it.each([
    ['no name', { name: '' }, 'name'],
    ['a number for a name', { name: 7 }, 'name'],
    ['a negative number of hours', { hoursPerDay: -2 }, 'hoursPerDay'],
    ['hours in words', { hoursPerDay: '4' }, 'hoursPerDay'],
    ['an unknown field', { colour: 'red' }, 'colour'],
    ['an owner by name', { ownerId: 'Ada' }, 'ownerId'],
  ])('refuse %s, name the place, and write nothing', async (_name, change, path) => {
    const before = await bench.count('system');
    const ownerId = await desk.owner();
    const answer = await desk.post('/systems', {
      ownerId,
      name: 'X',
      caseText: '',
      builtBy: '',
      hoursPerDay: null,
      policy: null,
      note: '',
      ...change,
    });
    expect(answer.status).toBe(422);
    expect(errorOf(answer).path).toBe(path);
    expect(await bench.count('system')).toBe(before);
  });

  it('refuse a text with a character that cannot be stored', async () => {
    const answer = await desk.post('/owners', { name: 'A\u0000B', email: null, phone: null, channel: 'phone', note: '', policy: null });
    expect(answer.status).toBe(422);
    expect(errorOf(answer).message).toContain('cannot be stored');
  });
});

describe('two people editing one system', () => {
  it('the later save is refused and shows both versions; nothing is lost', async () => {
    const id = await desk.system('Shared');
    const { system } = (await desk.get<{ system: Record<string, unknown> & { version: number } }>(`/systems/${id}`)).body;
    const edit = {
      ownerId: system.ownerId,
      name: 'Shared',
      caseText: '',
      builtBy: '',
      hoursPerDay: null,
      policy: null,
      note: '',
      state: 'planned',
      version: 1,
    };
    expect((await desk.put<{ version: number }>(`/systems/${id}`, { ...edit, note: 'first' })).body.version).toBe(2);
    const late = await desk.put(`/systems/${id}`, { ...edit, note: 'second' });
    expect(late.status).toBe(409);
    expect(errorOf(late)).toMatchObject({ code: 'stale', yours: { note: 'second' }, theirs: { note: 'first', version: 2 } });
    expect((await desk.get<{ system: { note: string } }>(`/systems/${id}`)).body.system.note).toBe('first');
  });

  it('only one of two saves at the same moment is taken', async () => {
    const ownerId = await desk.owner('Twins');
    const edit = (name: string) =>
      desk.put(`/owners/${ownerId}`, { name, email: null, phone: null, channel: 'email', note: '', policy: null, version: 1 });
    const statuses = (await Promise.all([edit('One'), edit('Two'), edit('Three')])).map(({ status }) => status).sort();
    expect(statuses).toEqual([200, 409, 409]);
  });

  it('nobody types a machine onto the bench', async () => {
    const id = await desk.system('Typed');
    const { system } = (await desk.get<{ system: { ownerId: string } }>(`/systems/${id}`)).body;
    const answer = await desk.put(`/systems/${id}`, {
      ownerId: system.ownerId,
      name: 'Typed',
      caseText: '',
      builtBy: '',
      hoursPerDay: null,
      policy: null,
      note: '',
      state: 'on-bench',
      version: 1,
    });
    expect(answer.status).toBe(409);
    expect(errorOf(answer).message).toContain('starting a run');
  });
});

describe('policies', () => {
  it('the narrowest counts: machine before owner before workshop, and each can be taken back', async () => {
    const owner = { name: 'Careful', email: null, phone: null, channel: 'phone', note: '' };
    const ownerId = (await desk.post<{ id: string }>('/owners', { ...owner, policy: 'six-months' })).body.id;
    const systemId = await desk.system('Policed', ownerId);
    const productId = await desk.coolant({ sheetLifeMonths: 36 });
    const { id: loopId } = await desk.loop(systemId, productId);
    await bench.pool.query("update system set state = 'in-service' where id = $1", [systemId]);
    const refill = async (doneOn: string): Promise<string | undefined> => {
      await desk.post(`/systems/${systemId}/services`, {
        loopId,
        kind: 'drain-refill',
        doneOn,
        productId,
        drainedMl: null,
        pouredMl: 700,
        note: '',
        finding: '',
      });
      const { dues } = (await desk.get<{ dues: { kind: string; reason: DateReason }[] }>(`/systems/${systemId}`)).body;
      const found = dues.find(({ kind }) => kind === 'coolant-service');
      return found && reasonWords(found.reason);
    };
    const edit = (policy: string | null, version: number) =>
      desk.put(`/systems/${systemId}`, {
        ownerId,
        name: 'Policed',
        caseText: '',
        builtBy: '',
        hoursPerDay: null,
        policy,
        note: '',
        state: 'in-service',
        version,
      });
    expect(await refill('2026-01-01')).toBe('agreed with this owner: every six months after the fill');
    expect((await edit('twelve-months', 1)).status).toBe(200);
    expect(await refill('2026-01-02')).toBe('set for this machine: every twelve months after the fill');
    await edit(null, 2);
    await desk.put(`/owners/${ownerId}`, { ...owner, policy: null, version: 1 });
    expect(await refill('2026-01-03')).toBe('workshop policy: every twelve months after the fill');
  });
});

describe('a double submit', () => {
  const body = { name: 'Once Only', email: null, phone: null, channel: 'phone', note: '', policy: null };

  it('counts once and answers the same twice', async () => {
    const key = randomUUID();
    const first = await desk.post<{ id: string }>('/owners', body, key);
    const second = await desk.post<{ id: string }>('/owners', body, key);
    expect([first.status, second.status]).toEqual([201, 201]);
    expect(second.body).toEqual(first.body);
  });

  it('counts once even at the same moment', async () => {
    const key = randomUUID();
    const before = await bench.count('owner');
    const answers = await Promise.all(Array.from({ length: 6 }, () => desk.post<{ id: string }>('/owners', body, key)));
    expect(new Set(answers.map((answer) => answer.body.id)).size).toBe(1);
    expect(await bench.count('owner')).toBe(before + 1);
  });

  it('with the same key for something else is refused', async () => {
    const key = randomUUID();
    await desk.post('/owners', body, key);
    expect((await desk.post('/owners', { ...body, name: 'Other' }, key)).status).toBe(409);
    expect((await desk.post('/owners', body, 'not-a-key')).status).toBe(422);
  });

  it('that was refused may be corrected under the same key', async () => {
    const key = randomUUID();
    expect((await desk.post('/owners', { ...body, channel: 'pigeon' }, key)).status).toBe(422);
    expect((await desk.post('/owners', body, key)).status).toBe(201);
  });
});

describe('another workshop', () => {
  it('sees nothing and reaches nothing: every id is simply not there', async () => {
    const other = await bench.workshop('Other');
    const ownerId = await desk.owner('Private');
    const systemId = await desk.system('Private tower', ownerId);
    const productId = await desk.coolant();
    const loop = await desk.loop(systemId, productId);
    const runId = (await desk.run(loop.id)).body.run.id;

    expect(await lines(other)).toEqual([]);
    expect((await other.get<{ owners: unknown[] }>('/owners')).body.owners).toEqual([]);
    expect((await other.get<{ runs: unknown[] }>('/benches')).body.runs).toEqual([]);
    for (const path of [
      `/systems/${systemId}`,
      `/loops/${loop.id}`,
      `/loops/${loop.id}/revisions/1/file`,
      `/runs/${runId}`,
      `/runs/${runId}/record`,
    ]) {
      expect((await other.get(path)).status, path).toBe(404);
    }
    const edit = { name: 'Mine now', email: null, phone: null, channel: 'phone', note: '', policy: null, version: 1 };
    expect((await other.put(`/owners/${ownerId}`, edit)).status).toBe(404);
    expect(
      (await other.post('/systems', { ownerId, name: 'X', caseText: '', builtBy: '', hoursPerDay: null, policy: null, note: '' })).status,
    ).toBe(404);
    expect((await other.entry(runId, { type: 'note', step: 'kit', text: 'hello' })).status).toBe(404);
    expect((await other.run(loop.id)).status).toBe(404);
    const own = await other.loop(await other.system());
    expect((await other.post('/coolant-lots', { productId, lot: '1', openedOn: null })).status).toBe(404);
    expect((await other.post('/loops', { systemId: await other.system(), name: 'L', coolantProductId: productId, file: {} })).status).toBe(
      422,
    );
    expect(own.version).toBe(1);
  });

  it('is walled off in the database itself, whatever a query asks', async () => {
    const client = await bench.pool.connect();
    try {
      await client.query('begin');
      await client.query("select set_config('lavacrum.workshop', $1, true), set_config('role', 'lavacrum_app', true)", [randomUUID()]);
      for (const table of [
        'owner',
        'system',
        'loop',
        'loop_revision',
        'component',
        'tube',
        'run',
        'run_event',
        'due_item',
        'person',
        'workshop',
        'bench',
        'coolant_product',
        'job',
      ]) {
        expect((await client.query(`select 1 from ${table}`)).rowCount, table).toBe(0);
      }
      await expect(client.query('select * from session')).rejects.toMatchObject({ code: '42501' });
    } finally {
      await client.query('rollback');
      client.release();
    }
  });

  it('cannot be pointed at: a row may not refer across the wall', async () => {
    const other = await bench.workshop('Pointing');
    const ownerId = await desk.owner();
    const { rows } = await bench.pool.query<{ id: string }>("select id from workshop where name = 'Pointing'");
    await expect(
      bench.pool.query('insert into system (workshop_id, owner_id, name) values ($1, $2, $3)', [rows[0]?.id, ownerId, 'X']),
    ).rejects.toMatchObject({ code: '23503' });
    expect(await lines(other)).toEqual([]);
  });

  it('every table with rows of a workshop has its policy', async () => {
    const { rows } = await bench.pool.query<{ relname: string }>(
      "select c.relname from pg_class c join pg_namespace n on n.oid = c.relnamespace where n.nspname = 'public' and c.relkind = 'r' and not c.relrowsecurity and c.relname <> 'session'",
    );
    expect(rows).toEqual([]);
  });
});

describe('services recorded afterwards', () => {
  async function filledSystem(): Promise<{ systemId: string; loopId: string; productId: string }> {
    const systemId = await desk.system(`Served ${randomUUID().slice(0, 4)}`);
    const productId = await desk.coolant();
    const { id: loopId } = await desk.loop(systemId, productId);
    await bench.pool.query("update system set state = 'in-service' where id = $1", [systemId]);
    return { systemId, loopId, productId };
  }
  const service = (facts: { loopId: string; productId: string }, more = {}) => ({
    loopId: facts.loopId,
    kind: 'drain-refill',
    doneOn: '2026-03-01',
    productId: facts.productId,
    drainedMl: 700,
    pouredMl: 720,
    note: '',
    finding: '',
    ...more,
  });

  it('start the clocks again and stand in the history', async () => {
    const facts = await filledSystem();
    expect((await desk.post(`/systems/${facts.systemId}/services`, service(facts, { finding: 'film on the floor' }))).status).toBe(201);
    const page = (
      await desk.get<{
        dues: { kind: string; dueOn: string; reason: DateReason }[];
      }>(`/systems/${facts.systemId}`)
    ).body;
    expect(page.dues.map(({ kind, dueOn }) => [kind, dueOn])).toEqual([
      ['settling-check', '2026-03-08'],
      ['dust-clean', '2026-09-01'],
      ['coolant-service', '2027-03-01'],
    ]);
    expect((await desk.history(facts.systemId)).map(({ text }) => text)).toEqual(
      expect.arrayContaining([expect.stringContaining('700 mL out'), 'film on the floor']),
    );
  });

  it('replace the clocks of the fill before', async () => {
    const facts = await filledSystem();
    await desk.post(`/systems/${facts.systemId}/services`, service(facts, { doneOn: '2026-02-01' }));
    await desk.post(`/systems/${facts.systemId}/services`, service(facts, { doneOn: '2026-03-05', kind: 'flush-refill' }));
    const { dues } = (await desk.get<{ dues: { dueOn: string }[] }>(`/systems/${facts.systemId}`)).body;
    expect(dues.map(({ dueOn }) => dueOn)).toEqual(['2026-03-12', '2026-08-01', '2027-03-05']);
  });

  it('fall due no more once the machine is given up, and again when it comes back', async () => {
    const facts = await filledSystem();
    await desk.post(`/systems/${facts.systemId}/services`, service(facts));
    type Page = { system: Record<string, unknown> & { version: number; state: string }; dues: { dueOn: string }[] };
    const page = async (): Promise<Page> => (await desk.get<Page>(`/systems/${facts.systemId}`)).body;
    const setState = async (state: string) => {
      const { version, name, ownerId, caseText, builtBy, hoursPerDay, note } = (await page()).system;
      return (await desk.put(`/systems/${facts.systemId}`, { name, ownerId, caseText, builtBy, hoursPerDay, note, policy: null, state, version })).status; // prettier-ignore
    };
    const before = (await page()).dues.map(({ dueOn }) => dueOn);
    expect(await setState('retired')).toBe(200);
    expect((await page()).dues).toEqual([]);
    const line = (await lines(desk)).find(({ id }) => id === facts.systemId);
    expect(line).toMatchObject({ attention: 'retired', nextDueOn: null });
    expect(await setState('in-service')).toBe(200);
    expect((await page()).dues.map(({ dueOn }) => dueOn)).toEqual(before);
  });

  it.each([
    ['in the future', { doneOn: '2026-03-11' }, 422, 'doneOn'],
    ['without a volume', { pouredMl: null }, 422, 'pouredMl'],
    ['with a negative volume', { drainedMl: -1 }, 422, 'drainedMl'],
  ])('are refused %s', async (_name, change, status, path) => {
    const facts = await filledSystem();
    const answer = await desk.post(`/systems/${facts.systemId}/services`, service(facts, change));
    expect(answer.status).toBe(status);
    expect(errorOf(answer).path).toBe(path);
  });

  it('are refused before an earlier fill, for a loop of another system, and for one never filled', async () => {
    const facts = await filledSystem();
    await desk.post(`/systems/${facts.systemId}/services`, service(facts));
    expect(errorOf(await desk.post(`/systems/${facts.systemId}/services`, service(facts, { doneOn: '2026-01-01' }))).message).toContain(
      'later fill, on 2026-03-01',
    );
    const other = await filledSystem();
    expect((await desk.post(`/systems/${other.systemId}/services`, service(facts))).status).toBe(404);
    const planned = await desk.system('Planned');
    const loop = await desk.loop(planned);
    expect(errorOf(await desk.post(`/systems/${planned}/services`, service({ ...facts, loopId: loop.id }))).message).toContain(
      'commission it first',
    );
  });

  it('are put off with a reason and stay open; a stale postponement is refused', async () => {
    const facts = await filledSystem();
    await desk.post(`/systems/${facts.systemId}/services`, service(facts));
    const due = (await desk.get<{ dues: { id: string; kind: string; version: number }[] }>(`/systems/${facts.systemId}`)).body.dues.find(
      ({ kind }) => kind === 'coolant-service',
    );
    const put = (body: object) =>
      desk.put<{ dueOn: string; postponed: number; reason: DateReason }>(`/due-items/${due?.id}/postpone`, body);
    expect(errorOf(await put({ until: '2027-02-01', reason: 'busy', riskTold: true, version: 1 })).path).toBe('until');
    const done = await put({ until: '2027-04-01', reason: 'busy until spring', riskTold: true, version: 1 });
    expect(done.body).toMatchObject({ dueOn: '2027-04-01', postponed: 1, reason: { why: 'put-off', said: 'busy until spring' } });
    expect((await put({ until: '2027-05-01', reason: 'again', riskTold: true, version: 1 })).status).toBe(409);
    expect((await desk.history(facts.systemId)).some(({ kind }) => kind === 'postponed')).toBe(true);
  });

  it('settle: closed when the level settled, otherwise open again in three days', async () => {
    const facts = await filledSystem();
    await desk.post(`/systems/${facts.systemId}/services`, service(facts));
    const settling = async () =>
      (
        await desk.get<{ dues: { id: string; kind: string; version: number; dueOn: string; reason: DateReason }[] }>(
          `/systems/${facts.systemId}`,
        )
      ).body.dues.find(({ kind }) => kind === 'settling-check');
    const due = await settling();
    const close = (body: object) => desk.put(`/due-items/${due?.id}/close`, { levelChangeMm: -3, note: '', ...body });
    expect((await close({ outcome: 'done', version: 1 })).status).toBe(422);
    expect((await close({ outcome: 'not-settled', version: 1 })).status).toBe(200);
    expect(await settling()).toMatchObject({ dueOn: '2026-03-13', reason: { why: 'not-settled', levelChangeMm: -3 } });
    expect((await close({ outcome: 'settled', version: 2 })).status).toBe(200);
    expect(await settling()).toBeUndefined();
    expect((await close({ outcome: 'settled', version: 3 })).status).toBe(409);
  });
});
