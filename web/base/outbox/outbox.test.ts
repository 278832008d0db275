// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { openDB } from 'idb';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiError } from '../http/api.js';
import { dropItem, forgetAnswers, keepItem, keptItems, rememberAnswer, rememberedAnswer } from './deviceStore.js';
import { mended, type EntryItem, type Maker, type OutboxItem, type PhotoItem } from './items.js';
import { Outbox } from './outbox.js';

const tess: Maker = { personId: 'p-tess', personName: 'Tess', workshopId: 'w' };
const jorrit: Maker = { personId: 'p-jorrit', personName: 'Jorrit', workshopId: 'w' };
const stranger: Maker = { personId: 'p-x', personName: 'X', workshopId: 'elsewhere' };

const entry = (text: string, more: Partial<EntryItem> = {}): EntryItem => ({
  kind: 'entry',
  id: crypto.randomUUID(),
  at: '2026-03-10T09:00:00Z',
  made: tess,
  why: null,
  tries: 0,
  runId: 'run 1',
  body: { type: 'note', step: 'kit', text },
  ...more,
});
const photo = (more: Partial<PhotoItem> = {}): PhotoItem => ({
  kind: 'photo',
  id: crypto.randomUUID(),
  at: '2026-03-10T09:00:00Z',
  made: tess,
  why: null,
  tries: 0,
  systemId: 's',
  jobId: null,
  caption: 'as it came in',
  image: 'data:image/jpeg;base64,AA',
  ...more,
});
const failure = (status: number, code = 'x', message = 'words'): ApiError => new ApiError(status, code, message, [], {});
const textOf = (item: OutboxItem): string => (item.kind === 'entry' && 'text' in item.body ? String(item.body.text) : item.kind);

/** An outbox with a server that answers as told, and a disk of its own. */
function box(answer: (item: OutboxItem) => unknown, who: () => Maker | null = () => tess) {
  const disk = new Map<string, OutboxItem>();
  const sent: [text: string, madeBy: string | null][] = [];
  const made = new Outbox({
    store: {
      kept: async () => [...disk.values()],
      keep: async (item) => void disk.set(item.id, item),
      drop: async (id) => void disk.delete(id),
    },
    who,
    send: async (item, madeBy) => {
      const got = answer(item);
      if (got instanceof Error) throw got;
      sent.push([textOf(item), madeBy]);
      return got;
    },
  });
  return { made, disk, sent };
}
const idle = async (): Promise<void> => {
  for (let n = 0; n < 40; n += 1) await Promise.resolve();
};

beforeEach(() => {
  vi.useRealTimers();
});

describe('the outbox', () => {
  it('shows an item at once, keeps it on the disk first, and drops it once the server has it', async () => {
    const { made, disk, sent } = box(() => ({}));
    const stored = made.add(entry('one'));
    expect(made.view.waiting.map(textOf)).toEqual(['one']);
    await stored;
    await idle();
    expect(sent).toEqual([['one', null]]);
    expect(made.view.waiting).toEqual([]);
    expect(disk.size).toBe(0);
  });

  it('does not call kept what is still on its way to the disk, nor what the disk would not take', async () => {
    let written = (): void => undefined;
    const never = { kept: async () => [], drop: async () => undefined };
    const away = { who: () => tess, send: async () => Promise.reject(failure(0)) };
    const slow = new Outbox({ ...away, store: { ...never, keep: () => new Promise<void>((resolve) => (written = resolve)) } });
    const one = entry('one');
    const stored = slow.add(one);
    expect([...slow.view.keeping]).toEqual([one.id]);
    written();
    await stored;
    expect([slow.view.keeping.size, slow.view.waiting.length]).toEqual([0, 1]);

    const full = new Outbox({ ...away, store: { ...never, keep: async () => Promise.reject(new Error('disk full')) } });
    await expect(full.add(one)).rejects.toThrow('disk full');
    expect([...full.view.keeping]).toEqual([one.id]);
  });

  it('keeps the order of a run, and lets other runs and photographs pass while one of them waits', async () => {
    let broken = true;
    const { made, sent } = box((item) => (broken && textOf(item) === 'a1' ? failure(500) : {}));
    for (const each of [entry('a1'), entry('a2'), entry('b1', { runId: 'run 2' }), photo()]) void made.add(each);
    await idle();
    expect(sent.map(([text]) => text)).toEqual(['b1', 'photo']);
    broken = false;
    await made.deliver();
    expect(sent.map(([text]) => text)).toEqual(['b1', 'photo', 'a1', 'a2']);
  });

  it('waits while the server or the network is away, and goes on by itself', async () => {
    vi.useFakeTimers();
    let away = true;
    const { made, disk, sent } = box(() => (away ? failure(0) : {}));
    void made.add(entry('kept'));
    await vi.advanceTimersByTimeAsync(10_000);
    expect([made.view.waiting.length, made.view.away, disk.size]).toEqual([1, true, 1]);
    away = false;
    await vi.advanceTimersByTimeAsync(60_000);
    expect(sent).toHaveLength(1);
    expect(made.view).toEqual({ waiting: [], keeping: new Set(), refused: [], away: false });
  });

  it('sets aside what is refused, with the server’s words, until somebody has read them', async () => {
    const { made, disk, sent } = box((item) => (textOf(item) === 'late' ? failure(409, 'refused', 'This run was abandoned.') : {}));
    const late = entry('late');
    void made.add(late);
    void made.add(entry('next'));
    await idle();
    expect(sent.map(([text]) => text)).toEqual(['next']);
    expect(made.view.refused).toMatchObject([{ id: late.id, why: 'This run was abandoned.' }]);
    expect(disk.get(late.id)?.why).toBe('This run was abandoned.');
    await made.dismiss(late.id);
    expect([made.view.refused.length, disk.size]).toEqual([0, 0]);
  });

  it('does not let one item that always fails block those behind it', async () => {
    const { made, sent } = box((item) => (textOf(item) === 'bad' ? failure(500, 'internal', 'Something failed.') : {}));
    void made.add(entry('bad'));
    void made.add(entry('good'));
    await idle();
    for (let n = 0; n < 5; n += 1) await made.deliver();
    expect(sent.map(([text]) => text)).toEqual(['good']);
    expect(made.view.refused).toMatchObject([{ why: 'Something failed.', tries: 5 }]);
  });

  it('delivers under another’s session as theirs, and keeps what belongs to another workshop', async () => {
    let who: Maker | null = null;
    const { made, sent } = box(() => ({}), () => who); // prettier-ignore
    void made.add(entry('by Tess'));
    void made.add(entry('of a stranger', { made: stranger, runId: 'run 9' }));
    void made.add(entry('of nobody known', { made: null }));
    await idle();
    expect(sent).toEqual([]);
    who = jorrit;
    await made.deliver();
    expect(sent).toEqual([
      ['by Tess', 'p-tess'],
      ['of nobody known', null],
    ]);
    expect(made.view.waiting.map(textOf)).toEqual(['of a stranger']);
    who = tess;
    await made.deliver();
    expect(made.view.waiting.map(textOf)).toEqual(['of a stranger']);
  });

  it('begins with what an earlier page left on the disk, before what this one adds', async () => {
    const { made, disk, sent } = box(() => ({}));
    const old = entry('from before');
    disk.set(old.id, old);
    await made.start();
    void made.add(entry('new'));
    await made.start();
    await idle();
    expect(sent.map(([text]) => text)).toEqual(['from before', 'new']);
  });

  it('tells who listens what the server answered', async () => {
    const { made } = box((item) => ({ got: textOf(item) }));
    const heard: unknown[] = [];
    const stop = made.onDelivered((_item, answer) => heard.push(answer));
    await made.add(entry('one'));
    await idle();
    stop();
    await made.add(entry('two'));
    await idle();
    expect(heard).toEqual([{ got: 'one' }]);
  });
});

/** no half of a pair stands alone in it */
function isWhole(text: string): boolean {
  try {
    encodeURIComponent(text);
    return true;
  } catch {
    return false;
  }
}

describe('a text that no database can store', () => {
  it('is mended on the device', () => {
    expect(mended(entry('half \ud83d a smile, a \u0000 zero')).body).toMatchObject({ text: 'half \ufffd a smile, a  zero' });
    expect(mended('whole \ud83d\ude00')).toBe('whole \ud83d\ude00');
  });

  it('becomes one that it can, whatever it was, and nothing else changes', () => {
    fc.assert(
      fc.property(fc.anything(), fc.string({ unit: 'binary' }), (any, text) => {
        const value = mended({ text, any: JSON.parse(JSON.stringify(any ?? null) ?? 'null') as unknown });
        expect(JSON.stringify(value)).not.toMatch(/\\u0000|\\ud[89a-f]/i);
        if (isWhole(text) && !text.includes('\u0000')) expect(value.text).toBe(text);
      }),
    );
  });
});

describe('the device’s disk', () => {
  it('keeps items in the order they were made, each once, and what changed of them', async () => {
    const [a, b] = [entry('a'), photo()];
    await keepItem(a);
    await keepItem(b);
    await keepItem({ ...a, tries: 2 });
    expect(await keptItems()).toEqual([{ ...a, tries: 2 }, b]);
    await dropItem(a.id);
    await dropItem(a.id);
    expect(await keptItems()).toEqual([b]);
    await dropItem(b.id);
  });

  it('remembers what was last read, until somebody signs out', async () => {
    expect(await rememberedAnswer('run r')).toBeNull();
    await rememberAnswer('run r', { steps: [1, 2] });
    await rememberAnswer('run r', { steps: [1, 2, 3] });
    expect(await rememberedAnswer('run r')).toEqual({ steps: [1, 2, 3] });
    await forgetAnswers();
    expect(await rememberedAnswer('run r')).toBeNull();
  });

  it('brings along what an older program left waiting', async () => {
    vi.resetModules();
    indexedDB.deleteDatabase('lavacrum');
    const old = await openDB('lavacrum', 1, {
      upgrade(db) {
        const entries = db.createObjectStore('entries', { keyPath: 'n', autoIncrement: true });
        entries.createIndex('run', 'runId');
        entries.createIndex('id', 'id', { unique: true });
        db.createObjectStore('answers');
      },
    });
    await old.add('entries', { id: 'e1', at: 't', runId: 'r', body: { type: 'note', step: 'kit', text: 'old' }, why: null });
    old.close();
    const photos = await openDB('lavacrum-photos', 1, { upgrade: (db) => void db.createObjectStore('photos', { keyPath: 'id' }) });
    await photos.add('photos', { id: 'p1', systemId: 's', jobId: null, caption: 'c', image: 'data:' });
    photos.close();
    const fresh = await import('./deviceStore.js');
    expect(await fresh.keptItems()).toMatchObject([
      { kind: 'entry', id: 'e1', runId: 'r', made: null, body: { text: 'old' } },
      { kind: 'photo', id: 'p1', systemId: 's', made: null },
    ]);
  });
});
