import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { ref } from 'vue';
import { ApiError, call } from '../http/api.js';

/** A picture that waits on this device. Its id is its own for ever: sent twice, it is kept once. */
export interface WaitingPhoto {
  readonly id: string;
  readonly systemId: string;
  readonly jobId: string | null;
  readonly caption: string;
  /** data URL, already small */
  readonly image: string;
}

interface Shape extends DBSchema {
  photos: { key: string; value: WaitingPhoto };
}

let opened: Promise<IDBPDatabase<Shape>> | null = null;
const database = (): Promise<IDBPDatabase<Shape>> =>
  (opened ??= openDB<Shape>('lavacrum-photos', 1, {
    upgrade: (made) => void made.createObjectStore('photos', { keyPath: 'id' }),
    terminated: () => {
      opened = null;
    },
  }).catch((error: unknown) => {
    opened = null;
    throw error;
  }));

/** how many pictures the server does not have yet */
export const waitingPhotos = ref(0);
const count = async (): Promise<void> => {
  waitingPhotos.value = await (await database()).count('photos');
};

const post = ({ id, systemId, jobId, caption, image }: WaitingPhoto): Promise<unknown> =>
  call('POST', `/systems/${systemId}/photos`, { body: { id, caption, jobId, image } });

/** The network, the server or the session was away: it is tried again. */
const isAway = (error: unknown): boolean =>
  error instanceof ApiError && (error.status === 0 || error.status >= 500 || error.status === 401 || error.status === 429);

/**
 * Keeps a picture on the device's disk, then sends it.
 * @returns whether it waits, because the server cannot be reached
 * @throws what the server says of a picture that it does not take; that one is not kept
 */
export async function keepAndSend(photo: WaitingPhoto): Promise<{ waits: boolean }> {
  const store = await database();
  const writing = store.transaction('photos', 'readwrite', { durability: 'strict' });
  await Promise.all([writing.store.put(photo), writing.done]);
  try {
    await post(photo);
    await store.delete('photos', photo.id);
    return { waits: false };
  } catch (error) {
    if (isAway(error)) return { waits: true };
    await store.delete('photos', photo.id);
    throw error;
  } finally {
    await count();
  }
}

let sending = false;
/** Sends what waits. A picture that is not taken stays on the device: somebody else may be signed in. */
export async function sendWaitingPhotos(): Promise<void> {
  if (sending) return;
  sending = true;
  try {
    const store = await database();
    for (const photo of await store.getAll('photos')) {
      try {
        await post(photo);
        await store.delete('photos', photo.id);
      } catch (error) {
        if (isAway(error)) return;
      }
    }
  } finally {
    sending = false;
    await count();
  }
}

/** ms between two tries while something waits */
const AGAIN_MS = 20_000;

/** Tries at the start, when the network comes back, and now and then while something waits. */
export function startPhotoPost(): void {
  const again = (): void => void sendWaitingPhotos().catch(() => undefined);
  window.addEventListener('online', again);
  window.setInterval(() => {
    if (waitingPhotos.value > 0) again();
  }, AGAIN_MS);
  again();
}
