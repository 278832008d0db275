// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { answeredAhead, askAhead, forgetAhead, rememberSignedIn } from './ahead.js';
import { call, get } from './api.js';

const TODAY = ['/today', '/benches'];
let asked: string[];
beforeEach(() => {
  asked = [];
  localStorage.clear();
  vi.stubGlobal('fetch', (path: string) => {
    asked.push(path);
    return Promise.resolve(new Response(JSON.stringify({ path, turn: asked.length })));
  });
});
afterEach(() => {
  forgetAhead();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('a question that was asked ahead', () => {
  it('is who is signed in, and nothing else where nobody was', () => {
    askAhead(TODAY);
    rememberSignedIn(true);
    rememberSignedIn(false);
    expect(asked).toEqual(['/api/session']);
  });

  it('answers the page that asks for it once; asked again it is asked anew', async () => {
    rememberSignedIn(true);
    askAhead(TODAY);
    expect(asked).toEqual(['/api/session', '/api/today', '/api/benches']);
    expect(await get('/today')).toEqual({ path: '/api/today', turn: 2 });
    expect(asked).toHaveLength(3);
    expect(await get('/today')).toEqual({ path: '/api/today', turn: 4 });
  });

  it('is forgotten once something was changed, or when no page took it for a while', async () => {
    vi.useFakeTimers();
    rememberSignedIn(true);
    askAhead(TODAY);
    await call('PUT', '/session', { body: {} }).catch(() => undefined);
    expect(await answeredAhead('/today')).toBeNull();
    askAhead(TODAY);
    vi.advanceTimersByTime(6000);
    expect(await answeredAhead('/today')).toBeNull();
  });

  it('that nobody answered is asked again by its page', async () => {
    rememberSignedIn(true);
    let isAway = true;
    vi.stubGlobal('fetch', () => (isAway ? Promise.reject(new TypeError('away')) : Promise.resolve(new Response('{"is":"there"}'))));
    askAhead(TODAY);
    isAway = false;
    expect(await get('/today')).toEqual({ is: 'there' });
  });
});
