import { randomUUID } from 'node:crypto';
import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestBench, Visitor } from '../../../tests/integration/bench.js';
import { changeKey, renewKeys } from './keys.js';
import { ServerMember, type MemberSettings } from './member.js';
import { readSecrets, Secrets } from './secrets.js';

/** Two servers on one database, as behind a proxy: whoever asks may meet either. */
let one: TestBench;
let two: TestBench;
const members: ServerMember[] = [];
const limits = { tries: 3, accountTries: 100, addressTries: 100, windowMs: 300_000 };

function member(bench: TestBench, name: string, more: Partial<MemberSettings> = {}): ServerMember {
  const made = new ServerMember(
    { name, version: 'test', secrets: null, oldSecret: null, ...more },
    bench.database,
    new Secrets(),
    pino({ level: 'silent' }),
  );
  members.push(made);
  return made;
}
let first: ServerMember;
let second: ServerMember;

beforeAll(async () => {
  const [a, b] = [new Secrets(), new Secrets()];
  one = await TestBench.open({ secrets: a, signInLimit: limits });
  two = await TestBench.open({ secrets: b, signInLimit: limits, beside: one });
  const of = (bench: TestBench, name: string, secrets: Secrets): ServerMember => {
    const made = new ServerMember(
      { name, version: 'test', secrets: null, oldSecret: null },
      bench.database,
      secrets,
      pino({ level: 'silent' }),
    );
    members.push(made);
    return made;
  };
  first = of(one, 'one', a);
  second = of(two, 'two', b);
  await Promise.all([first.join(), second.join()]);
});
afterAll(async () => {
  for (const each of members) await each.leave();
  await two.close();
  await one.close();
});

/** The same browser at the other server. */
function across(visitor: Visitor, bench: TestBench): Visitor {
  const other = new Visitor(bench.url);
  other.cookie = visitor.cookie;
  other.token = visitor.token;
  return other;
}
const later = (days: number) => one.pool.query(`update server.secret set signs_from = signs_from - make_interval(days => ${days})`);

describe('servers on one database', () => {
  it('share their key: who signed in at one is signed in at the other, and stays so when the key changes', async () => {
    const visitor = await one.workshop('Shared');
    expect((await across(visitor, two).get('/systems')).status).toBe(200);
    expect(first.secrets.all).toHaveLength(1);

    expect(await renewKeys(one.database)).toBe(false);
    await later(31);
    expect(await renewKeys(one.database)).toBe(true);
    expect(await renewKeys(two.database)).toBe(false);
    await second.beat();
    // it does not sign yet: the first server has not heard of it
    const before = second.secrets.all;
    expect(before).toHaveLength(2);
    expect(before[0]).toBe(first.secrets.all[0]);
    expect((await across(visitor, two).get('/systems')).status).toBe(200);

    await one.pool.query('update server.secret set signs_from = now() where signs_from > now()');
    await second.beat();
    expect(second.secrets.all[0]).toBe(before[1]);
    const browser = across(visitor, two);
    expect((await browser.get('/systems')).status).toBe(200);
    expect(browser.cookie).not.toBe(visitor.cookie);
    await first.beat();
    expect((await across(browser, one).get('/systems')).status).toBe(200);
    expect((await across(visitor, one).get('/systems')).status).toBe(200);
  });

  it('give the first answer to a request that comes again, though the key is another by then', async () => {
    const visitor = await one.workshop('Again');
    const key = randomUUID();
    const owner = { name: 'Ada', email: null, phone: null, channel: 'phone', note: '', policy: null };
    const made = await visitor.post<{ id: string }>('/owners', owner, key);
    await changeKey(one.database, false);
    await one.pool.query('update server.secret set signs_from = now() where signs_from > now()');
    await Promise.all([first.beat(), second.beat()]);
    const again = await across(visitor, two).post<{ id: string }>('/owners', owner, key);
    expect([again.status, again.body.id]).toEqual([201, made.body.id]);
    expect((await across(visitor, two).post('/owners', { ...owner, name: 'Bo' }, key)).status).toBe(409);
  });

  it('sign everybody out where a key leaked, at both of them', async () => {
    const visitor = await one.workshop('Leaked');
    const old = first.secrets.all[0];
    await changeKey(two.database, true);
    await Promise.all([first.beat(), second.beat()]);
    expect(first.secrets.all).toEqual(second.secrets.all);
    expect(first.secrets.all).not.toContain(old);
    for (const bench of [one, two]) expect((await across(visitor, bench).get('/systems')).status).toBe(401);
    expect((await visitor.signIn(visitor.email)).status).toBe(201);
    expect((await across(visitor, two).get('/systems')).status).toBe(200);
  });

  it('count guesses together: two doors give no more tries than one', async () => {
    const visitor = await one.workshop('Guessed');
    const guess = async (bench: TestBench) => (await new Visitor(bench.url).signIn(visitor.email, 'not this one')).status;
    expect([await guess(one), await guess(two), await guess(one)]).toEqual([401, 401, 401]);
    expect(await guess(two)).toBe(429);
    const { rows } = await one.pool.query<{ key: string }>('select key from server.attempt');
    expect(rows.some(({ key }) => key.includes('@') || key.includes('127'))).toBe(false);
  });

  it('miss one that says nothing, and not one that left', async () => {
    const third = member(two, 'three');
    await third.join();
    await one.pool.query("update server.member set seen_at = now() - interval '40 seconds' where name = 'three'");
    await first.beat();
    expect(first.servers.map(({ name, isSilent }) => [name, isSilent])).toEqual([['one', false], ['three', true], ['two', false]]); // prettier-ignore
    await third.leave();
    await first.beat();
    expect(first.servers.map(({ name }) => name)).toEqual(['one', 'two']);
  });

  it('are told where two have one name, as with a copied settings file', async () => {
    const lines: string[] = [];
    const settings = { name: 'one', version: 'test', secrets: null, oldSecret: null };
    const namesake = new ServerMember(
      settings,
      two.database,
      new Secrets(),
      pino({ level: 'warn' }, { write: (line) => void lines.push(line) }),
    );
    members.push(namesake);
    await namesake.join();
    expect(lines.join()).toContain('give each its own LAVACRUM_NAME');
  });

  it('know of work that one of them did for all', async () => {
    const at = new Date('2026-03-10T02:45:00Z');
    await first.note('backup', 'failed', at);
    await second.beat();
    expect(second.of('backup')).toEqual({ doneAt: null, failedAt: at });
    await second.note('backup', 'done', new Date('2026-03-11T02:45:00Z'));
    await first.beat();
    expect(first.of('backup')?.doneAt?.toISOString()).toBe('2026-03-11T02:45:00.000Z');
  });

  it('take a key of an older program over, where there is none yet, and one of a setting always', async () => {
    const own = await TestBench.open();
    try {
      const old = member(own, 'old', { oldSecret: 'the key of a file that was there' });
      await old.join();
      expect(old.secrets.all).toEqual(['the key of a file that was there']);
      const next = member(own, 'next', { oldSecret: 'another' });
      await next.join();
      expect(next.secrets.all).toEqual(old.secrets.all);
      const set = readSecrets('n'.repeat(32) + ', ' + 'o'.repeat(40));
      const bySetting = member(own, 'set', { secrets: set });
      await bySetting.join();
      expect(bySetting.secrets.all).toEqual(['n'.repeat(32), 'o'.repeat(40)]);
      for (const each of [old, next, bySetting]) await each.leave();
    } finally {
      await own.close();
    }
    expect(() => readSecrets('short')).toThrow('at least 32 characters');
  });

  it('hide what is theirs from every request', async () => {
    const { rows } = await one.pool.query(
      "select 1 from information_schema.role_table_grants where table_schema = 'server' and grantee = 'lavacrum_app'",
    );
    expect(rows).toEqual([]);
  });
});

describe('marks of the servers', () => {
  const secrets = new Secrets(['new', 'old']);

  it('are recognised by every key that counts, for their own purpose and text alone', () => {
    const old = new Secrets(['old']).mark('known device', 'ada@home.example');
    expect(secrets.recognises('known device', 'ada@home.example', old)).toBe(true);
    expect(secrets.recognises('password link', 'ada@home.example', old)).toBe(false);
    expect(secrets.recognises('known device', 'bo@home.example', old)).toBe(false);
    expect(secrets.recognises('known device', 'ada@home.example', new Secrets(['other']).mark('known device', 'ada@home.example'))).toBe(
      false,
    );
    expect(secrets.recognises('known device', 'ada@home.example', '')).toBe(false);
  });

  it('are not made before there is a key', () => {
    expect(() => new Secrets().mark('known device', 'x')).toThrow('no key yet');
    expect(new Secrets().recognises('known device', 'x', 'y')).toBe(false);
  });
});
