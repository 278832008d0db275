import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { RunEventBody } from '@core/commissioning/events.js';

/** An entry that waits on this device. Its id is its own for ever: sent twice, it counts once. */
export interface WaitingEntry {
  readonly id: string;
  readonly at: string;
  readonly body: RunEventBody;
}

/** An entry that the server did not take, with its words. Kept until somebody has read it. */
export interface RefusedEntry extends WaitingEntry {
  readonly why: string;
}

interface Row extends WaitingEntry {
  readonly runId: string;
  readonly why: string | null;
}

interface Shape extends DBSchema {
  /** key: counts up, so that the order of the hands is kept */
  entries: { key: number; value: Row & { n?: number }; indexes: { run: string; id: string } };
  /** what was last read of a run, an account …, for when the network is away */
  answers: { key: string; value: unknown };
}

let opened: Promise<IDBPDatabase<Shape>> | null = null;

const database = (): Promise<IDBPDatabase<Shape>> =>
  (opened ??= openDB<Shape>('lavacrum', 1, {
    upgrade(made) {
      const entries = made.createObjectStore('entries', { keyPath: 'n', autoIncrement: true });
      entries.createIndex('run', 'runId');
      entries.createIndex('id', 'id', { unique: true });
      made.createObjectStore('answers');
    },
    // another tab wants a newer layout: give way, the next call opens anew
    blocking: (_current, _blocked, event) => {
      (event.target as IDBDatabase).close();
      opened = null;
    },
    terminated: () => {
      opened = null;
    },
  }).catch((error: unknown) => {
    opened = null;
    throw error;
  }));

const entryOf = ({ id, at, body }: Row): WaitingEntry => ({ id, at, body });

/** What waits for the server, in the order it was entered, and what the server refused. */
export async function entriesOf(runId: string): Promise<{ waiting: WaitingEntry[]; refused: RefusedEntry[] }> {
  const rows = await (await database()).getAllFromIndex('entries', 'run', runId);
  return {
    waiting: rows.filter(({ why }) => why === null).map(entryOf),
    refused: rows.flatMap((row) => (row.why === null ? [] : [{ ...entryOf(row), why: row.why }])),
  };
}

/** Resolves once the entry is on the device's disk, not only on its way there. */
export async function keepEntry(runId: string, entry: WaitingEntry): Promise<void> {
  const writing = (await database()).transaction('entries', 'readwrite', { durability: 'strict' });
  // a plain copy: what comes from a screen may be reactive
  await Promise.all([writing.store.add(JSON.parse(JSON.stringify({ ...entry, runId, why: null })) as Row), writing.done]);
}

async function change(id: string, to: ((row: Row) => Row) | null): Promise<void> {
  const writing = (await database()).transaction('entries', 'readwrite', { durability: 'strict' });
  const key = await writing.store.index('id').getKey(id);
  const row = key === undefined ? undefined : await writing.store.get(key);
  if (key !== undefined && row) await (to ? writing.store.put(to(row)) : writing.store.delete(key));
  await writing.done;
}

/** The server has it. */
export const dropEntry = (id: string): Promise<void> => change(id, null);

/** The server did not take it: it stays, with the reason. */
export const refuseEntry = (id: string, why: string): Promise<void> => change(id, (row) => ({ ...row, why }));

/** Entries of any run that the server does not have yet. */
export async function waitingInAll(): Promise<number> {
  return (await (await database()).getAll('entries')).filter(({ why }) => why === null).length;
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
