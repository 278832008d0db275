import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { errorOf, TestBench, Visitor } from '../../../tests/integration/bench.js';
import { LINK_LIMIT } from './passwordLink.js';

let bench: TestBench;
let lead: Visitor;
const stranger = (): Visitor => new Visitor(bench.url);
beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('Millrace');
});
afterAll(() => bench.close());

const OWN = 'heron under mill door';
/** Asks for a link and reads it out of the letter. */
async function linkFor(email: string): Promise<string> {
  const before = bench.letters.length;
  expect((await stranger().post('/password-link', { email })).status).toBe(202);
  await vi.waitFor(() => expect(bench.letters.length).toBe(before + 1), { timeout: 120_000 });
  return /new-password#(\S+)/.exec(bench.letters.at(-1)?.body ?? '')?.[1] as string;
}
const choose = (link: string, password = OWN) => stranger().post('/new-password', { link, password });

describe('somebody who forgot the password', () => {
  it('gets a letter, chooses a new one by its link, once, and is signed out everywhere', async () => {
    const tess = await lead.colleague('technician');
    const link = await linkFor(tess.email.toUpperCase());
    expect(bench.letters.at(-1)).toMatchObject({ to: tess.email, from: 'Millrace', workshopId: lead.workshopId });
    expect(bench.letters.at(-1)?.body).toMatch(/http:\/\/localhost:4180.*machine of the server only/s);
    expect(errorOf(await choose(link, 'password123')).fields?.[0]?.path).toBe('password');
    expect((await choose(link)).status).toBe(200);
    expect((await tess.get('/systems')).status).toBe(401);
    expect((await stranger().signIn(tess.email, OWN)).status).toBe(201);
    expect(errorOf(await choose(link, 'another heron at the weir')).message).toMatch(/used or too old/);
  });

  it('is led to the workshop’s public address where it set one', async () => {
    const own = await bench.workshop('Reached');
    const contact = { address: '', phone: '', email: '', publicAddress: 'https://desk.example', version: 1 };
    expect((await own.put('/workshop/contact', contact)).status).toBe(200);
    await linkFor(own.email);
    expect(bench.letters.at(-1)?.body).toContain('https://desk.example/new-password#');
    expect(bench.letters.at(-1)?.body).not.toContain('server only');
  });

  it('finds the link closed after an hour, and a link that was changed opens nothing', async () => {
    const tess = await lead.colleague('technician');
    const link = await linkFor(tess.email);
    const [who, until, mark] = link.split('.');
    for (const made of [`${who}.${Number(until) + 60_000}.${mark}`, `${who}.${until}.AAAA`, `not-an-id.${until}.${mark}`, ''])
      expect((await choose(made || '.')).status, made).toBe(409);
    bench.wait(61 * 60);
    expect((await choose(link)).status).toBe(409);
  });

  it('is answered the same whether there is an account or none, and a mailbox is not filled', async () => {
    const before = bench.letters.length;
    const email = 'nobody@elsewhere.example';
    for (let n = 0; n < LINK_LIMIT.account; n += 1) {
      const answer = await stranger().post('/password-link', { email });
      expect([answer.status, answer.body]).toEqual([202, { asked: true }]);
    }
    expect((await stranger().post('/password-link', { email })).status).toBe(429);
    expect(bench.letters.length).toBe(before);
  });

  it('gets no letter where nobody lets this person in any more', async () => {
    const gone = await lead.colleague('technician');
    const link = await linkFor(gone.email);
    const { people } = (await lead.get<{ people: { id: string; email: string; name: string; role: string; version: number }[] }>('/workshop')).body; // prettier-ignore
    const row = people.find(({ email }) => email === gone.email);
    const { name, role, version } = row as NonNullable<typeof row>;
    await lead.put(`/people/${row?.id}`, { name, role, version, active: false });
    const before = bench.letters.length;
    expect((await stranger().post('/password-link', { email: gone.email })).status).toBe(202);
    expect((await choose(link)).status).toBe(409);
    expect(bench.letters.length).toBe(before);
  });
});
