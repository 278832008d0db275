import { deleteDB, openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { OutboxItem } from './items.js';

interface Shape extends DBSchema {
  /** key: counts up, so that the order of the hands is kept */
  items: { key: number; value: OutboxItem & { n?: number }; indexes: { id: string } };
  /** what was last read of a run, an account …, for when the network is away */
  answers: { key: string; value: unknown };
}

/** An entry as the first layout kept it, without the person who made it. */
interface FirstEntry {
  readonly id: string;
  readonly at: string;
  readonly body: unknown;
  readonly runId: string;
  readonly why: string | null;
}

/** A picture as the first layout kept it, in a database of its own. */
interface FirstPhoto {
  readonly id: string;
  readonly systemId: string;
  readonly jobId: string | null;
  readonly caption: string;
  readonly image: string;
}

const VERSION = 2;
const FIRST_PHOTOS = 'lavacrum-photos';
let opened: Promise<IDBPDatabase<Shape>> | null = null;

const database = (): Promise<IDBPDatabase<Shape>> =>
  (opened ??= openDB<Shape>('lavacrum', VERSION, {
    async upgrade(made, from, _to, writing) {
      const items = made.createObjectStore('items', { keyPath: 'n', autoIncrement: true });
      items.createIndex('id', 'id', { unique: true });
      if (from === 0) return void made.createObjectStore('answers');
      const old = writing as unknown as { objectStore(name: string): { getAll(): Promise<FirstEntry[]> } };
      for (const { id, at, body, runId, why } of await old.objectStore('entries').getAll())
        await items.add({ kind: 'entry', id, at, runId, body: body as never, made: null, why, tries: 0 });
      (made as unknown as IDBPDatabase).deleteObjectStore('entries');
    },
    // another tab wants a newer layout: give way, the next call opens anew
    blocking: (_current, _blocked, event) => {
      (event.target as IDBDatabase).close();
      opened = null;
    },
    terminated: () => {
      opened = null;
    },
  })
    .then(async (made) => {
      await bringPhotos(made).catch(() => undefined);
      return made;
    })
    .catch((error: unknown) => {
      opened = null;
      throw error;
    }));

/** Pictures of the first layout join the others. */
async function bringPhotos(made: IDBPDatabase<Shape>): Promise<void> {
  const known = typeof indexedDB.databases === 'function' ? await indexedDB.databases() : [];
  if (!known.some(({ name }) => name === FIRST_PHOTOS)) return;
  const old = await openDB<{ photos: { key: string; value: FirstPhoto } }>(FIRST_PHOTOS);
  const photos = old.objectStoreNames.contains('photos') ? await old.getAll('photos') : [];
  old.close();
  for (const photo of photos)
    await made.add('items', { kind: 'photo', at: new Date().toISOString(), made: null, why: null, tries: 0, ...photo });
  await deleteDB(FIRST_PHOTOS);
}

/** Everything that waits on this device or was not taken, in the order it was made. */
export async function keptItems(): Promise<OutboxItem[]> {
  return (await (await database()).getAll('items')).map(({ n: _, ...item }) => item as OutboxItem);
}

/** Resolves once it is on the device's disk, not only on its way there. */
export async function keepItem(item: OutboxItem): Promise<void> {
  const writing = (await database()).transaction('items', 'readwrite', { durability: 'strict' });
  const store = writing.objectStore('items');
  const key = await store.index('id').getKey(item.id);
  // a plain copy: what comes from a screen may be reactive
  const plain = JSON.parse(JSON.stringify(item)) as OutboxItem;
  await Promise.all([key === undefined ? store.add(plain) : store.put({ ...plain, n: key }), writing.done]);
}

/** The server has it, or somebody has read why it has not. */
export async function dropItem(id: string): Promise<void> {
  const writing = (await database()).transaction('items', 'readwrite', { durability: 'strict' });
  const store = writing.objectStore('items');
  const key = await store.index('id').getKey(id);
  if (key !== undefined) await store.delete(key);
  await writing.done;
}

export async function rememberAnswer(key: string, answer: unknown): Promise<void> {
  await (await database()).put('answers', JSON.parse(JSON.stringify(answer)), key);
}

export async function rememberedAnswer<T>(key: string): Promise<T | null> {
  return ((await (await database()).get('answers', key)) as T | undefined) ?? null;
}

export async function forgetAnswers(): Promise<void> {
  await (await database()).clear('answers');
}
