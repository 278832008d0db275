// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { fakeServer, settle } from '../../../tests/screens/mountScreen.js';
import { ApiError, call, get, setToken, whenSignedOut } from './api.js';
import { useSubmit } from './useSubmit.js';

beforeEach(() => setToken(null));
afterEach(() => vi.useRealTimers());
const refusedWith = (status: number, error: object) => ({ status, body: { error: { code: 'x', message: 'words', ...error } } });

describe('asking the server', () => {
  it('sends JSON with the token of the session', async () => {
    setToken('abc');
    const asked = fakeServer(() => ({ status: 201, body: { id: 7 } }));
    expect(await call('POST', '/things', { body: { a: 1 }, idempotencyKey: 'k' })).toEqual({ id: 7 });
    expect(asked[0]).toMatchObject({
      method: 'POST',
      path: '/things',
      body: { a: 1 },
      headers: { 'x-lavacrum-token': 'abc', 'idempotency-key': 'k', 'content-type': 'application/json' },
    });
  });

  it('turns a refusal into words, places and details', async () => {
    fakeServer(() => refusedWith(422, { code: 'invalid-input', fields: [{ path: 'name', message: 'too short' }], hint: 'longer' }));
    const error = await get('/things').catch((caught: unknown) => caught);
    expect(error).toBeInstanceOf(ApiError);
    expect(error).toMatchObject({
      status: 422,
      code: 'invalid-input',
      message: 'words',
      fields: [{ path: 'name' }],
      details: { hint: 'longer' },
    });
  });

  it('says that nothing is lost when the server cannot be reached or talks nonsense', async () => {
    fakeServer(() => 'unreachable');
    await expect(get('/x')).rejects.toMatchObject({ code: 'unreachable', message: expect.stringContaining('still here') as string });
    globalThis.fetch = (async () => new Response('<html>', { status: 502 })) as typeof fetch;
    await expect(get('/x')).rejects.toMatchObject({ status: 502, message: expect.stringContaining('Nothing was saved') as string });
  });

  it('asks a question again while the server is overrun, and sends nothing twice that writes', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    const busy = refusedWith(503, { code: 'busy', message: 'later' });
    const replies = [busy, busy, { status: 200, body: { name: 'Loft' } }];
    const asked = fakeServer(() => replies.shift() ?? busy);
    const answer = get('/x');
    await vi.advanceTimersByTimeAsync(5000);
    expect(await answer).toEqual({ name: 'Loft' });
    expect(asked).toHaveLength(3);

    const told = get('/x').catch(({ message }: Error) => message);
    await vi.advanceTimersByTimeAsync(10_000);
    expect([await told, asked.length]).toEqual(['later', 7]);
    await expect(call('POST', '/x', { body: {} })).rejects.toMatchObject({ code: 'busy' });
    expect(asked).toHaveLength(8);

    const left = new AbortController();
    const dropped = get('/x', left.signal).catch(({ name }: Error) => name);
    await vi.advanceTimersByTimeAsync(0);
    left.abort();
    await vi.advanceTimersByTimeAsync(10_000);
    expect([await dropped, asked.length]).toEqual(['AbortError', 9]);
  });

  it('tells when the session has ended', async () => {
    let told = 0;
    whenSignedOut(() => {
      told += 1;
    });
    fakeServer(() => refusedWith(401, { code: 'signed-out' }));
    await get('/x').catch(() => undefined);
    fakeServer(() => refusedWith(401, { code: 'wrong-credentials' }));
    await get('/x').catch(() => undefined);
    expect(told).toBe(1);
  });
});

describe('submitting a form', () => {
  it('runs once, however often it is pressed', async () => {
    const submit = useSubmit();
    let runs = 0;
    const save = (): Promise<string> =>
      submit.run(async () => {
        runs += 1;
        await settle();
        return 'done';
      }) as Promise<string>;
    const [first, second] = await Promise.all([save(), save()]);
    expect([first, second, runs]).toEqual(['done', null, 1]);
    expect(submit.busy.value).toBe(false);
  });

  it('keeps its key while the outcome is unknown and takes a new one after a clear answer', async () => {
    const submit = useSubmit();
    const keys: string[] = [];
    const attempt = (outcome: 'unreachable' | 'refused' | 'done') =>
      submit.run(async (key) => {
        keys.push(key);
        if (outcome === 'unreachable') throw new ApiError(0, 'unreachable', 'away', [], {});
        if (outcome === 'refused') throw new ApiError(422, 'invalid-input', 'no', [], {});
        return true;
      });
    await attempt('unreachable');
    await attempt('unreachable');
    await attempt('refused');
    await attempt('done');
    await attempt('done');
    expect(keys[1]).toBe(keys[0]);
    expect(keys[2]).toBe(keys[0]);
    expect(keys[3]).not.toBe(keys[2]);
    expect(keys[4]).not.toBe(keys[3]);
  });

  it('gives messages to the fields they belong to, and both versions of a stale save', async () => {
    const submit = useSubmit();
    await submit.run(async () => {
      throw new ApiError(
        422,
        'invalid-input',
        'first',
        [
          { path: 'name', message: 'name may not be empty' },
          { path: 'schools.leak', message: 'unknown' },
          { path: 'windows[1].to', message: 'windows[1].to lies before its beginning' },
        ],
        {},
      );
    });
    // a field says it without the name that it has in a request
    expect([submit.at('name'), submit.at('nam')]).toEqual([['May not be empty'], []]);
    // what no field of the form shows is said as a whole; what each shows is not said twice
    expect(submit.problem.value).toBe('first');
    expect([submit.at('schools'), submit.at('windows')]).toEqual([['Unknown'], ['Lies before its beginning']]);
    await submit.run(async () => {
      throw new ApiError(422, 'invalid-input', 'name may not be empty', [{ path: 'name', message: 'name may not be empty' }], {});
    });
    expect(submit.problem.value).toContain('each field says why');
    await submit.run(async () => {
      throw new ApiError(409, 'stale', 'late', [], { yours: 1, theirs: 2 });
    });
    expect(submit.stale.value).toEqual({ yours: 1, theirs: 2 });
    submit.clear();
    expect([submit.problem.value, submit.stale.value]).toEqual([null, null]);
  });
});
