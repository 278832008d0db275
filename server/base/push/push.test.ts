import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestBench, type Visitor } from '../../../tests/integration/bench.js';
import { STREAMS } from './hub.js';

let bench: TestBench;
let lead: Visitor;
let runId: string;
beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('Push');
  const loop = await lead.loop(await lead.system());
  runId = (await lead.run(loop.id)).body.run.id;
});
afterAll(() => bench.close());

interface Notice {
  event: string;
  data: { runId?: string; seq?: number };
}

/** A browser's event stream, read as far as it has come. */
class Stream {
  readonly notices: Notice[] = [];
  /** the server closed it */
  ended = false;
  private readonly stop = new AbortController();

  static async open(visitor: Visitor): Promise<Stream> {
    const stream = new Stream();
    const response = await fetch(`${visitor.url}/api/stream`, { headers: { cookie: visitor.cookie }, signal: stream.stop.signal });
    expect(response.headers.get('content-type')).toBe('text/event-stream');
    void stream.read(response);
    return stream;
  }

  private async read(response: Response): Promise<void> {
    let text = '';
    const reader = response.body?.pipeThrough(new TextDecoderStream()).getReader();
    try {
      for (;;) {
        const { done, value } = (await reader?.read()) ?? { done: true, value: '' };
        if (done) {
          this.ended = true;
          return;
        }
        text += value;
        const blocks = text.split('\n\n');
        text = blocks.pop() ?? '';
        for (const block of blocks) {
          const [, event] = /^event: (.*)$/m.exec(block) ?? [];
          const [, data] = /^data: (.*)$/m.exec(block) ?? [];
          if (event) this.notices.push({ event, data: JSON.parse(data ?? '{}') as Notice['data'] });
        }
      }
    } catch {
      // closed by the test
    }
  }

  of = (event: string): Notice[] => this.notices.filter((notice) => notice.event === event);
  close = (): void => this.stop.abort();
}

const note = (text: string) => lead.entry(runId, { type: 'note', step: 'kit', text });

describe('the event stream', () => {
  it('tells everybody who watches the workshop of an entry, by id', async () => {
    const [one, two] = [await Stream.open(lead), await Stream.open(lead)];
    await note('first');
    await expect.poll(() => one.of('run').length).toBe(1);
    await expect.poll(() => two.of('run')).toEqual([{ event: 'run', data: { kind: 'run', runId, seq: 1 } }]);
    one.close();
    two.close();
  });

  it('begins with a call to fetch, so that no gap remains after a drop', async () => {
    const stream = await Stream.open(lead);
    await expect.poll(() => stream.of('resync').length).toBe(1);
    stream.close();
  });

  it('tells nothing of another workshop, and nothing that was refused', async () => {
    const other = await bench.workshop('Elsewhere');
    const [foreign, own] = [await Stream.open(other), await Stream.open(lead)];
    await lead.entry(runId, { type: 'step-done', step: 'kit' });
    await note('second');
    await expect.poll(() => own.of('run').length).toBe(1);
    expect(foreign.of('run')).toEqual([]);
    foreign.close();
    own.close();
  });

  it('ends with its session: signed out in another tab, or the account closed on whichever server', async () => {
    const leaving = await bench.workshop('Leaving');
    const [tab, closed] = [await Stream.open(leaving), await Stream.open(await bench.workshop('Closed'))];
    await leaving.send('DELETE', '/api/session');
    await expect.poll(() => tab.ended).toBe(true);
    await bench.pool.query("update person set active = false where name = 'Lead of Closed'");
    expect(closed.ended).toBe(false);
    await bench.push.beat();
    await expect.poll(() => closed.ended).toBe(true);
    const own = await Stream.open(lead);
    await bench.push.beat();
    expect(own.ended).toBe(false);
    own.close();
  });

  it('is open so often at most for one session: the oldest ends', async () => {
    const many = await bench.workshop('Many tabs');
    const streams: Stream[] = [];
    for (let n = 0; n < STREAMS.session + 2; n += 1) streams.push(await Stream.open(many));
    await expect.poll(() => streams.filter(({ ended }) => ended).length).toBe(2);
    expect(streams.slice(0, 2).every(({ ended }) => ended)).toBe(true);
    streams.forEach((each) => each.close());
  });

  it('is only for those who are signed in', async () => {
    expect((await fetch(`${bench.url}/api/stream`)).status).toBe(401);
  });

  it('listens again after the database dropped it, and then calls everybody to fetch', async () => {
    const stream = await Stream.open(lead);
    await expect.poll(() => stream.of('resync').length).toBe(1);
    await bench.pool.query(
      "select pg_terminate_backend(pid) from pg_stat_activity where application_name = 'lavacrum push' and datname = current_database()",
    );
    await expect.poll(() => stream.of('resync').length, { timeout: 120_000 }).toBe(2);
    await note('third');
    await expect.poll(() => stream.of('run').length).toBe(1);
    stream.close();
  });
});
