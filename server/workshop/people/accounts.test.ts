import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { errorOf, TestBench, Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
beforeAll(async () => {
  bench = await TestBench.open();
});
afterAll(() => bench.close());

describe('the first visit', () => {
  it('asks for a workshop, makes it once, and signs its lead in', async () => {
    const visitor = new Visitor(bench.url);
    expect((await visitor.get('/session')).body).toEqual({ signedIn: false, setupNeeded: true });
    const setup = {
      workshopName: 'Brookside',
      timeZone: 'Europe/Lisbon',
      personName: 'Ada',
      email: 'Ada@Brookside.example',
      password: 'ten letters',
    };
    const made = await visitor.post<{ account: { role: string; workshopName: string } }>('/setup', setup);
    expect(made.status).toBe(201);
    expect(made.body.account).toMatchObject({ role: 'lead', workshopName: 'Brookside' });
    const second = await new Visitor(bench.url).post('/setup', { ...setup, email: 'eve@brookside.example' });
    expect(second.status).toBe(409);
    expect(await bench.count('workshop')).toBe(1);
  });

  it('refuses a weak password and a time zone that is none, before anything is made', async () => {
    const answer = await new Visitor(bench.url).post('/setup', {
      workshopName: 'X',
      timeZone: 'Mars',
      personName: 'A',
      email: 'a@b.example',
      password: 'short',
    });
    expect(answer.status).toBe(422);
    expect(errorOf(answer).fields?.map(({ path }) => path)).toEqual(['timeZone', 'password']);
  });
});

describe('signing in', () => {
  it('takes the address in any case and sets a cookie that scripts cannot read', async () => {
    const visitor = new Visitor(bench.url);
    const answer = await visitor.signIn('ADA@brookside.EXAMPLE', 'ten letters');
    expect(answer.status).toBe(201);
    const cookie = answer.headers.getSetCookie()[0] as string;
    expect(cookie).toMatch(/HttpOnly/i);
    expect(cookie).toMatch(/SameSite=Strict/i);
  });

  it('changes the session id, so that one planted beforehand is worth nothing', async () => {
    const visitor = new Visitor(bench.url);
    visitor.cookie = 'lavacrum=s%3Aplanted.signature';
    await visitor.signIn('ada@brookside.example', 'ten letters');
    expect(visitor.cookie).not.toContain('planted');
  });

  it('says the same about a wrong password and an unknown address', async () => {
    const wrong = await new Visitor(bench.url).signIn('ada@brookside.example', 'not this one');
    const unknown = await new Visitor(bench.url).signIn('nobody@brookside.example', 'not this one');
    expect([wrong.status, unknown.status]).toEqual([401, 401]);
    expect(errorOf(wrong).message).toBe(errorOf(unknown).message);
  });

  it('keeps no password and no address in its log', () => {
    expect(bench.logged.join()).not.toContain('ada@');
    expect(bench.logged.join()).not.toContain('letters');
  });

  it('slows down whoever guesses, and lets a right password through before that', async () => {
    const strict = await TestBench.open({ signInLimit: { tries: 3, accountTries: 100, addressTries: 100, windowMs: 300_000 } });
    try {
      await strict.workshop('Guessed');
      const statuses: number[] = [];
      for (let n = 0; n < 5; n += 1) statuses.push((await new Visitor(strict.url).signIn('ada@guessed.example', `guess ${n}`)).status);
      expect(statuses).toEqual([401, 401, 401, 429, 429]);
      const answer = await new Visitor(strict.url).signIn('ada@guessed.example', 'guess');
      expect(errorOf(answer)).toMatchObject({ code: 'too-many', message: expect.stringContaining('Wait') as string });
    } finally {
      await strict.close();
    }
  });

  it('signs out for good', async () => {
    const visitor = await bench.workshop('Leaving');
    const before = visitor.cookie;
    expect((await visitor.send('DELETE', '/api/session')).status).toBe(200);
    visitor.cookie = before;
    expect((await visitor.get('/systems')).status).toBe(401);
  });
});

describe('who may what', () => {
  it('needs a session for everything but sign-in and health', async () => {
    const visitor = new Visitor(bench.url);
    for (const path of [
      '/systems',
      '/today',
      '/benches',
      '/workshop',
      '/owners',
      '/coolants',
      '/runs/6f1f0d5e-0000-4000-8000-000000000001',
      '/nothing/here',
    ]) {
      const answer = await visitor.get(path);
      expect(answer.status, path).toBe(401);
      expect(errorOf(answer).code).toBe('signed-out');
    }
    expect((await visitor.get('/health')).status).toBe(200);
  });

  it('lets only the lead change the workshop, its people and benches', async () => {
    const lead = await bench.workshop('Roles');
    expect(
      (await lead.post('/people', { name: 'Tess', email: 'tess@roles.example', role: 'technician', password: 'ten letters too' })).status,
    ).toBe(201);
    const tech = new Visitor(bench.url);
    await tech.signIn('tess@roles.example', 'ten letters too');
    expect((await tech.post('/people', { name: 'X', email: 'x@roles.example', role: 'lead', password: 'ten letters too' })).status).toBe(
      403,
    );
    expect((await tech.post('/benches', { name: 'Mine' })).status).toBe(403);
    expect((await tech.get('/workshop')).status).toBe(200);
  });

  it('ends the session of an account that was closed, at once', async () => {
    const visitor = await bench.workshop('Closing');
    await bench.pool.query("update person set active = false where name = 'Lead of Closing'");
    expect((await visitor.get('/systems')).status).toBe(401);
    expect((await visitor.get<{ signedIn: boolean }>('/session')).body.signedIn).toBe(false);
  });

  it('refuses a second account for an address, and says so', async () => {
    const lead = await bench.workshop('Twice');
    const person = { name: 'A', email: 'one@twice.example', role: 'technician', password: 'ten letters too' };
    expect((await lead.post('/people', person)).status).toBe(201);
    const again = await lead.post('/people', person);
    expect(again.status).toBe(409);
    expect(errorOf(again).message).toBe('That e-mail address already has an account.');
  });
});

describe('forged requests', () => {
  it('are refused without the token of the session', async () => {
    const visitor = await bench.workshop('Forged');
    visitor.token = 'guess';
    const answer = await visitor.post('/owners', { name: 'X', email: null, phone: null, channel: 'phone', note: '', policy: null });
    expect(answer.status).toBe(403);
    expect(errorOf(answer).code).toBe('csrf');
    expect((await visitor.get('/owners')).status).toBe(200);
  });

  it('are refused when a browser says that another site sent them', async () => {
    const visitor = await bench.workshop('Crossed');
    const body = { name: 'X', email: null, phone: null, channel: 'phone', note: '', policy: null };
    expect((await visitor.send('POST', '/api/owners', body, { 'sec-fetch-site': 'cross-site' })).status).toBe(403);
    expect((await visitor.send('POST', '/api/owners', body, { origin: 'https://elsewhere.example' })).status).toBe(403);
    expect((await visitor.send('POST', '/api/session', { email: 'a', password: 'b' }, { origin: 'null' })).status).toBe(403);
    expect((await visitor.send('POST', '/api/owners', body, { origin: bench.url, 'sec-fetch-site': 'same-origin' })).status).toBe(201);
  });
});

describe('the workshop’s own rules', () => {
  it('are saved with a version; a stale save shows both', async () => {
    const lead = await bench.workshop('Rules');
    const { workshop } = (await lead.get<{ workshop: Record<string, unknown> & { version: number } }>('/workshop')).body;
    const { id: _id, rates: _rates, contact: _contact, reading: _reading, heatLimits: _heatLimits, door: _door, ...edit } = workshop;
    const saved = await lead.put<{ workshop: { version: number } }>('/workshop', { ...edit, policy: 'six-months' });
    expect(saved.body.workshop).toMatchObject({ policy: 'six-months', version: 2 });
    const late = await lead.put('/workshop', { ...edit, name: 'Late' });
    expect(late.status).toBe(409);
    expect(errorOf(late)).toMatchObject({ code: 'stale', yours: { name: 'Late' }, theirs: { policy: 'six-months', version: 2 } });
  });

  it('name benches once', async () => {
    const lead = await bench.workshop('Benches');
    expect((await lead.post('/benches', { name: 'Left' })).status).toBe(201);
    expect(errorOf(await lead.post('/benches', { name: 'Left' })).message).toBe('There is already a bench of that name.');
    expect((await lead.get<{ benches: { name: string }[] }>('/workshop')).body.benches.map(({ name }) => name)).toEqual([
      'Bench 1',
      'Left',
    ]);
  });
});
