import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { PersonRow, SignedInRow } from '../../../core/workshop/people/answers.js';
import { errorOf, TestBench, Visitor } from '../../../tests/integration/bench.js';
import { passwordCommand, workshopCommand } from '../../operations/people/commands.js';

let bench: TestBench;
let lead: Visitor;
beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('Millrace');
});
afterAll(() => bench.close());

const people = async (who = lead): Promise<PersonRow[]> => (await who.get<{ people: PersonRow[] }>('/workshop')).body.people;
const personOf = async (visitor: Visitor): Promise<PersonRow> => {
  const { account } = (await visitor.get<{ account: { personId: string } }>('/session')).body;
  return (await people()).find(({ id }) => id === account.personId) as PersonRow;
};
const edit = (of: PersonRow, change: Partial<PersonRow>, who = lead) =>
  who.put<PersonRow>(`/people/${of.id}`, { name: of.name, role: of.role, active: of.active, version: of.version, ...change });
const OWN = 'heron under mill door';

describe('people of a workshop', () => {
  it('are renamed, given another role, and no longer let in: signed out everywhere at once', async () => {
    const tess = await lead.colleague('technician');
    const row = await personOf(tess);
    expect((await edit(row, { name: 'Tess Alder', role: 'front-desk' })).body).toMatchObject({ name: 'Tess Alder', role: 'front-desk' });
    expect(errorOf(await edit(row, { name: 'Late' })).message).toMatch(/saved this person after you/);
    expect((await edit(await personOf(tess), { active: false })).status).toBe(200);
    expect((await tess.get('/systems')).status).toBe(401);
    expect((await tess.signIn(row.email)).status).toBe(401);
  });

  it('are changed by a lead only', async () => {
    const tess = await lead.colleague('technician');
    const row = await personOf(tess);
    expect((await edit(row, { role: 'lead' }, tess)).status).toBe(403);
    expect((await tess.put(`/people/${row.id}/password`, { password: OWN })).status).toBe(403);
  });

  it('never lose their last lead, not even where two resign at once', async () => {
    const own = await bench.workshop('Two leads');
    const [first] = await people(own);
    expect(errorOf(await edit(first as PersonRow, { role: 'technician' }, own)).message).toMatch(/only lead/);
    const other = await own.colleague('lead');
    const both = await people(own);
    const answers = await Promise.all(both.map((each, index) => edit(each, { role: 'technician' }, index === 0 ? own : other)));
    expect(answers.filter(({ status }) => status === 200)).toHaveLength(1);
  });
});

describe('roles', () => {
  it('lead runs or speak with owners, each their own; a refusal says whose it is, and nothing is written', async () => {
    const own = await bench.workshop('Roles');
    const [hand, desk] = [await own.colleague('technician'), await own.colleague('front-desk')];
    const owner = { name: 'Bryn', email: null, phone: '+351 555 77', channel: 'phone', note: '', policy: null };
    expect(errorOf(await hand.post('/owners', owner)).message).toMatch(/are the desk’s/);
    expect((await desk.post('/owners', owner)).status).toBe(201);
    const loop = await own.loop(await own.system('Rolled'));
    const run = {
      loopId: loop.id,
      benchId: null,
      schools: { leak: 'wet-only', wet: 'ten-minutes', limit: 'screen', gaugeResolutionKpa: 0.1 },
    };
    expect(errorOf(await desk.post('/runs', run)).message).toMatch(/led by technicians/);
    const started = await hand.post<{ run: { id: string } }>('/runs', run);
    expect(started.status).toBe(201);
    expect((await desk.entry(started.body.run.id, { type: 'note', step: 'kit', text: 'from the desk' })).status).toBe(403);
    // everybody reads everything
    expect((await desk.get<{ events: object[] }>(`/runs/${started.body.run.id}`)).body.events).toEqual([]);
    for (const who of [hand, desk]) expect((await who.post('/benches', { name: 'Mine' })).status).toBe(403);
    for (const who of [hand, desk]) expect((await who.post('/systems', { ownerId: await own.owner(), name: 'Any', caseText: '', builtBy: '', hoursPerDay: null, policy: null, note: '' })).status).toBe(201); // prettier-ignore
  });
});

describe('passwords', () => {
  it('are changed by oneself, with the old one, and every other device is signed out', async () => {
    const tess = await lead.colleague('technician');
    const { email } = await personOf(tess);
    const tablet = new Visitor(bench.url);
    await tablet.signIn(email);
    expect(errorOf(await tess.put('/own-password', { current: 'not this one', password: OWN })).message).toMatch(/not your password/);
    expect((await tess.put('/own-password', { current: 'a long password', password: OWN })).status).toBe(200);
    expect((await tess.get('/systems')).status).toBe(200);
    expect((await tablet.get('/systems')).status).toBe(401);
    expect((await new Visitor(bench.url).signIn(email)).status).toBe(401);
    expect((await new Visitor(bench.url).signIn(email, OWN)).status).toBe(201);
  });

  it('that a lead gives are first ones: the account says so until they are changed', async () => {
    const tess = await lead.colleague('technician');
    const { id, email } = await personOf(tess);
    expect((await lead.put(`/people/${id}/password`, { password: OWN })).status).toBe(200);
    expect((await tess.get('/systems')).status).toBe(401);
    const account = async (): Promise<unknown> => (await tess.get<{ account: object }>('/session')).body.account;
    await tess.signIn(email, OWN);
    expect(await account()).toMatchObject({ firstPassword: true });
    await tess.put('/own-password', { current: OWN, password: `${OWN} of mine` });
    expect(await account()).toMatchObject({ firstPassword: false });
  });

  it.each(['password123', 'qwertyuiop', '1234567890', 'aaaaaaaaaaaa', 'Millrace2026'])(
    'like %s are refused, and not repeated',
    async (password) => {
      const answer = await lead.post('/people', { name: 'Odo', email: 'odo@millrace.example', role: 'technician', password });
      expect(answer.status).toBe(422);
      expect(errorOf(answer).fields?.map(({ path }) => path)).toEqual(['password']);
      expect(JSON.stringify(answer.body)).not.toContain(password);
    },
  );

  it('are never shown by a refusal, however wrong they are', async () => {
    const short = await lead.post('/people', { name: 'Odo', email: 'odo@millrace.example', role: 'technician', password: 'hunter2' });
    expect(short.status).toBe(422);
    expect(JSON.stringify(short.body)).not.toContain('hunter2');
  });
});

describe('where people are signed in', () => {
  const list = async (who: Visitor): Promise<SignedInRow[]> => (await who.get<{ sessions: SignedInRow[] }>('/signed-in')).body.sessions;

  it('is listed, each their own and a lead everybody’s, and ended one by one', async () => {
    const own = await bench.workshop('Lists');
    const tess = await own.colleague('technician');
    const mine = await list(tess);
    expect(mine).toMatchObject([{ person: 'Tess', own: true, device: null }]);
    expect(await list(own)).toHaveLength(2);
    const away = (await list(own)).find(({ person }) => person === 'Tess') as SignedInRow;
    expect(JSON.stringify(away)).not.toContain(tess.cookie.split('=')[1]?.slice(4, 20));
    expect((await own.delete<{ sessions: SignedInRow[] }>(`/signed-in/${away.id}`)).body.sessions).toHaveLength(1);
    expect((await tess.get('/systems')).status).toBe(401);
    const here = (await list(own))[0] as SignedInRow;
    expect(errorOf(await own.delete(`/signed-in/${here.id}`)).message).toMatch(/sign out instead/);
  });

  it('ends everywhere else at once, and here not', async () => {
    const own = await bench.workshop('Everywhere');
    const tablet = new Visitor(bench.url);
    await tablet.post('/session', { email: own.email, password: 'a long password', device: 'tablet' });
    expect((await list(own)).find(({ own: here }) => !here)).toMatchObject({ device: 'tablet' });
    expect((await own.delete<{ sessions: SignedInRow[] }>('/signed-in')).body.sessions).toMatchObject([{ own: true }]);
    expect((await tablet.get('/systems')).status).toBe(401);
    expect((await own.get('/systems')).status).toBe(200);
  });

  it('shows nothing of another workshop, and ends nothing there', async () => {
    const [a, b] = [await bench.workshop('Wall A'), await bench.workshop('Wall B')];
    const other = (await list(b))[0] as SignedInRow;
    expect((await list(a)).map(({ id }) => id)).not.toContain(other.id);
    expect((await a.delete(`/signed-in/${other.id}`)).status).toBe(404);
    expect((await b.get('/systems')).status).toBe(200);
    const [person] = await people(b);
    expect((await edit(person as PersonRow, { active: false }, a)).status).toBe(404);
    expect((await a.put(`/people/${(person as PersonRow).id}/password`, { password: OWN })).status).toBe(404);
  });
});

describe('the demo’s account', () => {
  it('signs in until the workshop has a lead of its own', async () => {
    const own = await bench.workshop('Shown');
    await bench.pool.query('update person set is_demo = true where email = $1', [own.email]);
    expect((await new Visitor(bench.url).signIn(own.email)).status).toBe(201);
    const real = await own.colleague('lead');
    expect(errorOf(await new Visitor(bench.url).signIn(own.email)).message).toMatch(/has a lead of its own/);
    expect((await real.get('/systems')).status).toBe(200);
  });

  it('signs in on the machine itself only', async () => {
    const proxied = await TestBench.open({ behindProxy: true });
    try {
      const own = await proxied.workshop('Far', { 'x-forwarded-proto': 'https' });
      await proxied.pool.query('update person set is_demo = true');
      const far = new Visitor(proxied.url, { 'x-forwarded-proto': 'https', 'x-forwarded-for': '203.0.113.7' });
      expect(errorOf(await far.signIn(own.email)).message).toMatch(/on the machine itself only/);
    } finally {
      await proxied.close();
    }
  });
});

describe('at the machine itself', () => {
  const said: string[] = [];
  const place = () => ({
    ownerUrl: bench.databaseUrl,
    dataFolder: '',
    migrations: '',
    now: new Date(),
    say: (text: string) => void said.push(text),
  });
  const drawn = (): string => /\s{2}(\S+)$/m.exec(said.at(-1) ?? '')?.[1] ?? '';

  it('a lead who forgot gets a new first password, and is signed out elsewhere', async () => {
    const own = await bench.workshop('Forgot');
    await passwordCommand(place(), [own.email.toUpperCase()]);
    expect((await own.get('/systems')).status).toBe(401);
    const back = new Visitor(bench.url);
    expect((await back.signIn(own.email, drawn())).status).toBe(201);
    expect((await back.get<{ account: object }>('/session')).body.account).toMatchObject({ firstPassword: true });
    await expect(passwordCommand(place(), ['nobody@millrace.example'])).rejects.toThrow(/nobody here/);
  });

  it('a second workshop is made, and sees nothing of the first', async () => {
    await lead.system('Of Millrace');
    await workshopCommand(place(), ['Tidehouse', 'Ivo Larch', 'ivo@tidehouse.example', 'Europe/Lisbon']);
    const ivo = new Visitor(bench.url);
    expect((await ivo.signIn('ivo@tidehouse.example', drawn())).status).toBe(201);
    expect((await ivo.get<{ systems: object[] }>('/systems')).body.systems).toEqual([]);
    expect((await ivo.get<{ workshop: { name: string } }>('/workshop')).body.workshop.name).toBe('Tidehouse');
    await expect(workshopCommand(place(), ['Again', 'Ivo', 'ivo@tidehouse.example'])).rejects.toThrow(/has an account/);
    await expect(workshopCommand(place(), ['Again', 'Ivo', 'ivo2@tidehouse.example', 'Mars'])).rejects.toThrow(/no time zone/);
  });
});
