import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestBench, Visitor } from '../../../tests/integration/bench.js';

let bench: TestBench;
beforeAll(async () => {
  bench = await TestBench.open();
});
afterAll(() => bench.close());

describe('sessions and guesses', () => {
  const limits = { tries: 3, accountTries: 5, addressTries: 8, windowMs: 300_000 };
  const guess = async (own: TestBench, email: string): Promise<number> => (await new Visitor(own.url).signIn(email, 'not this one')).status;

  it('end after a month, however often they are used', async () => {
    const visitor = await bench.workshop('Daily');
    const since = (days: number) =>
      bench.pool.query(
        `update session set sess = jsonb_set(sess::jsonb, '{signedIn,sinceMs}', to_jsonb($2::bigint))::json
         where sess->'signedIn'->>'workshopId' = $1`,
        [visitor.workshopId, Date.now() - days * 86_400_000],
      );
    await since(29);
    expect((await visitor.get('/systems')).status).toBe(200);
    await since(31);
    expect((await visitor.get('/systems')).status).toBe(401);
  });

  it('leave nothing in the browser at sign-out', async () => {
    const visitor = await bench.workshop('Tidy');
    const answer = await visitor.send('DELETE', '/api/session');
    expect(answer.headers.get('clear-site-data')).toBe('"cache"');
    expect(answer.headers.getSetCookie().join()).toMatch(/lavacrum=;.*Expires=Thu, 01 Jan 1970/);
  });

  it('behind TLS the cookie belongs to this host alone, and browsers never come without TLS', async () => {
    const own = await TestBench.open({ behindProxy: true });
    try {
      const visitor = await own.workshop('Proxied', { 'x-forwarded-proto': 'https' });
      const answer = await visitor.signIn(visitor.email);
      expect(answer.headers.get('strict-transport-security')).toBe('max-age=31536000');
      const set = answer.headers.getSetCookie();
      expect(set.find((each) => each.startsWith('__Host-lavacrum='))).toMatch(/Path=\/.*HttpOnly.*Secure.*SameSite=Strict/);
      expect(set.join()).not.toContain('Domain');
      expect((await visitor.get('/systems')).status).toBe(200);
    } finally {
      await own.close();
    }
  });

  it('are counted by account: guesses at one leave a neighbour at the same address alone', async () => {
    const own = await TestBench.open({ signInLimit: limits });
    try {
      const mine = await own.workshop('Mine');
      const other = await own.workshop('Neighbour');
      for (let n = 0; n < 3; n += 1) expect(await guess(own, mine.email)).toBe(401);
      expect(await guess(own, mine.email)).toBe(429);
      expect((await new Visitor(own.url).signIn(other.email)).status).toBe(201);
    } finally {
      await own.close();
    }
  });

  it('let in a device that signed in before, whatever strangers at its address tried', async () => {
    const own = await TestBench.open({ signInLimit: limits });
    try {
      const mine = await own.workshop('Known');
      for (let n = 0; n < 9; n += 1) await guess(own, `nobody${n}@elsewhere.example`);
      expect(await guess(own, mine.email)).toBe(429);
      expect((await mine.signIn(mine.email)).status).toBe(201);
    } finally {
      await own.close();
    }
  });
});
