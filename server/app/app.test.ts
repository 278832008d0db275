import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { errorOf, TestBench, Visitor } from '../../tests/integration/bench.js';
import { answerOf, DomainError } from '../base/http/errors.js';

let bench: TestBench;
let visitor: Visitor;
beforeAll(async () => {
  const webFolder = mkdtempSync(path.join(tmpdir(), 'lavacrum-web-'));
  writeFileSync(path.join(webFolder, 'index.html'), '<!doctype html><title>page</title>');
  mkdirSync(path.join(webFolder, 'assets'));
  writeFileSync(path.join(webFolder, 'assets', 'app-1a2b.js'), '1');
  bench = await TestBench.open({ webFolder });
  visitor = await bench.workshop('Http');
});
afterAll(() => bench.close());

describe('bad input', () => {
  it('of ten megabytes is refused without being read', async () => {
    const answer = await visitor.send('POST', '/api/owners', JSON.stringify({ name: 'x'.repeat(10_000_000) }));
    expect(answer.status).toBe(413);
    expect(errorOf(answer)).toMatchObject({ code: 'too-large', message: expect.stringContaining('2 MB') as string });
  });

  it.each(['{"name":', '{name: 1}', 'not json', '\u0000'])('of broken JSON (%j) is refused', async (text) => {
    const answer = await visitor.send('POST', '/api/owners', text);
    expect(answer.status).toBe(400);
    expect(errorOf(answer).code).toBe('broken-json');
  });

  it.each(['null', '3', '"text"', '[]', '{}', 'true'])('of another shape (%s) is refused with a place', async (text) => {
    const answer = await visitor.send('POST', '/api/owners', text);
    expect(answer.status).toBe(422);
    expect(errorOf(answer).message).not.toBe('');
  });

  it.each([
    ['100 000 unknown keys', `{${Array.from({ length: 100_000 }, (_, n) => `"k${n}":1`).join(',')}}`],
    ['400 000 open brackets', '['.repeat(400_000)],
    ['a list of 200 000', JSON.stringify({ email: Array(200_000).fill(0) })],
  ])('of a hostile shape (%s) is refused by its shape, signed in or not', async (_what, body) => {
    // a stranger's is not even read
    expect((await new Visitor(bench.url).send('POST', '/api/session', body)).status).toBe(413);
    const answer = await visitor.send('POST', '/api/session', body);
    expect([400, 422]).toContain(answer.status);
    expect(errorOf(answer).fields?.length ?? 1).toBe(1);
  });

  it('of a device whose session has ended is not read, and the answer is the one it waits for', async () => {
    const large = JSON.stringify({ image: 'x'.repeat(900_000) });
    const answer = await new Visitor(bench.url).send('POST', '/api/systems/6f1f0d5e-0000-4000-8000-000000000001/photos', large);
    expect([answer.status, errorOf(answer).code]).toEqual([401, 'signed-out']);
  });

  it('that is not packed as it says, or an address that is none, is no failure of the server', async () => {
    const packed = await visitor.send('POST', '/api/session', '{"a":1}', { 'content-encoding': 'gzip' });
    expect(packed.status).toBe(400);
    for (const address of ['/assets/%zz', '/assets/%00', '/api/%zz']) expect((await visitor.send('GET', address)).status).toBeLessThan(500);
  });

  it('without a body or in another format is refused', async () => {
    expect((await visitor.send('POST', '/api/owners')).status).toBe(422);
    const form = await visitor.send('POST', '/api/owners', 'name=x', { 'content-type': 'application/x-www-form-urlencoded' });
    expect(form.status).toBe(415);
  });

  it('in an id is not found, like an id of nobody', async () => {
    for (const id of ['1', 'null', '../etc', '6f1f0d5e-0000-4000-8000-000000000001', "'; drop table system; --", '%00']) {
      expect((await visitor.get(`/systems/${encodeURIComponent(id)}`)).status, id).toBe(404);
    }
    expect((await visitor.send('GET', '/api/systems/%E0%A4%A')).status).toBe(400);
  });

  it('of a prototype changes nothing', async () => {
    const answer = await visitor.send(
      'POST',
      '/api/owners',
      '{"__proto__":{"admin":true},"name":"x","email":null,"phone":null,"channel":"phone","note":"","policy":null}',
    );
    expect([201, 422]).toContain(answer.status);
    expect(({} as { admin?: boolean }).admin).toBeUndefined();
  });

  it('at an address that is none is not found', async () => {
    const answer = await visitor.get('/nothing/here');
    expect(answer.status).toBe(404);
    expect(errorOf(answer).message).toBe('There is nothing at this address.');
  });
});

describe('headers', () => {
  it('let nothing in from elsewhere and no script stand in the page', async () => {
    const { headers } = await visitor.send('GET', '/');
    const policy = headers.get('content-security-policy') ?? '';
    expect(policy).toContain("default-src 'self'");
    expect(policy).toContain("script-src 'self';");
    expect(policy).toContain("frame-ancestors 'none'");
    expect(policy).not.toMatch(/script-src[^;]*unsafe|https?:/);
    expect(headers.get('x-content-type-options')).toBe('nosniff');
    expect(headers.get('x-powered-by')).toBeNull();
  });

  it('keep the page fresh, its parts for ever, and answers of the API never', async () => {
    expect((await visitor.send('GET', '/systems/whatever')).headers.get('cache-control')).toBe('no-cache');
    expect((await visitor.send('GET', '/assets/app-1a2b.js')).headers.get('cache-control')).toContain('immutable');
    expect((await visitor.get('/systems')).headers.get('cache-control')).toBe('no-store');
    expect((await visitor.send('GET', '/assets/gone.js')).status).toBe(404);
  });
});

describe('health', () => {
  it('is open to anybody and names the version', async () => {
    expect((await new Visitor(bench.url).get('/health')).body).toEqual({
      status: 'ok',
      database: 'ok',
      version: 'test',
      parts: { queue: 'ok', push: 'ok', instruments: 'ok', disk: 'ok', backup: 'ok', servers: 'ok' },
    });
  });

  it('says why when the database is away, loses nobody’s session, and recovers by itself', async () => {
    const own = await TestBench.open();
    const who = await own.workshop('Away');
    const admin = bench.pool;
    try {
      await admin.query(`alter database ${own.databaseName} with allow_connections false`);
      await admin.query('select pg_terminate_backend(pid) from pg_stat_activity where datname = $1', [own.databaseName]);
      const away = await who.get<{ status: string; database: string }>('/health');
      expect(away.status).toBe(503);
      expect(away.body).toMatchObject({ status: 'unavailable', database: expect.stringContaining('does not answer') as string });
      expect((await who.get('/systems')).status).toBe(503);
      await admin.query(`alter database ${own.databaseName} with allow_connections true`);
      expect((await who.get('/health')).status).toBe(200);
      expect((await who.get('/systems')).status).toBe(200);
    } finally {
      await admin.query(`alter database ${own.databaseName} with allow_connections true`);
      await own.close();
    }
  });
});

describe('errors', () => {
  const database = (code: string, constraint?: string): Error =>
    new Error('Failed query: select secret', { cause: Object.assign(new Error('detail'), { code, constraint }) });

  it.each([
    ['23505', 'person_email_once', 409, 'already has an account'],
    ['23505', undefined, 409, 'already exists'],
    ['23503', undefined, 404, 'not in this workshop'],
    ['23514', 'fill_volume_sane', 422, 'fill_volume_sane'],
    ['40001', undefined, 409, 'save again'],
    ['ECONNREFUSED', undefined, 503, 'does not answer'],
    ['57P01', undefined, 503, 'does not answer'],
    ['55000', undefined, 503, 'does not answer'],
    ['LC001', undefined, 409, 'never rewritten'],
    ['XX000', undefined, 500, 'Nothing was saved'],
  ])('%s of the database becomes an answer a person can use', (code, constraint, status, words) => {
    const answer = answerOf(database(code, constraint));
    expect(answer.status).toBe(status);
    expect(answer.body.error.message).toContain(words);
    expect(JSON.stringify(answer.body)).not.toContain('secret');
  });

  it('that nobody foresaw tell nothing of the inside', () => {
    expect(answerOf(new TypeError('x of undefined at /srv/secret.ts'))).toEqual({
      status: 500,
      body: { error: { code: 'internal', message: 'Something failed on the server. Nothing was saved.' } },
    });
    expect(answerOf('thrown text').status).toBe(500);
  });

  it('carry their details beside the message', () => {
    expect(answerOf(new DomainError('conflict', 'Taken.', { runId: '7' })).body.error).toEqual({
      code: 'conflict',
      message: 'Taken.',
      runId: '7',
    });
  });
});
