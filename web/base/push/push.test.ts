// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { effectScope } from 'vue';
import { usePush } from './usePush.js';

class FakeSource extends EventTarget {
  static opened: FakeSource[] = [];
  static readonly CLOSED = 2;
  readyState = 1;
  constructor(readonly url: string) {
    super();
    FakeSource.opened.push(this);
  }
  close = (): void => {
    this.readyState = 2;
  };
  tell(event: string, data: object = {}): void {
    this.dispatchEvent(new MessageEvent(event, { data: JSON.stringify(data) }));
  }
}

beforeEach(() => {
  FakeSource.opened = [];
  vi.stubGlobal('EventSource', FakeSource);
});
afterEach(() => vi.unstubAllGlobals());

const source = (): FakeSource => FakeSource.opened.at(-1) as FakeSource;

describe('the page’s event stream', () => {
  it('is one for all who watch, and closes with the last', () => {
    const seen: string[] = [];
    const [one, two] = [effectScope(), effectScope()];
    one.run(() => usePush({ run: ({ runId }) => seen.push(`one ${runId}`) }));
    two.run(() => usePush({ run: ({ runId }) => seen.push(`two ${runId}`), resync: () => seen.push('fetch') }));
    expect(FakeSource.opened).toHaveLength(1);
    source().tell('resync');
    source().tell('run', { runId: 'r', seq: 3 });
    expect(seen).toEqual(['fetch', 'one r', 'two r']);
    one.stop();
    expect(source().readyState).toBe(1);
    two.stop();
    expect(source().readyState).toBe(2);
  });

  it('says when there is no connection, and is opened anew once it was refused', () => {
    const scope = effectScope();
    const push = scope.run(() => usePush({}));
    source().tell('open');
    expect(push?.live.value).toBe(true);
    source().readyState = 2;
    source().tell('error');
    expect(push?.live.value).toBe(false);
    const again = effectScope();
    again.run(() => usePush({}));
    expect(FakeSource.opened).toHaveLength(2);
    scope.stop();
    again.stop();
  });
});
