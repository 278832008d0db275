import type { RunEventBody } from '@core/bench/runs/entries/all.js';

/** Who made an item. It is delivered as theirs, whoever is signed in by then. */
export interface Maker {
  readonly personId: string;
  readonly personName: string;
  readonly workshopId: string;
}

interface Item {
  /** its own for ever: sent twice, it counts once */
  readonly id: string;
  readonly at: string;
  /** null: kept by an older program, which did not say; it is delivered as whoever is signed in */
  readonly made: Maker | null;
  /** the server's words where it did not take it; kept until somebody has read them */
  readonly why: string | null;
  /** how often the server failed on it */
  readonly tries: number;
}

export interface EntryItem extends Item {
  readonly kind: 'entry';
  readonly runId: string;
  readonly body: RunEventBody;
}

export interface PhotoItem extends Item {
  readonly kind: 'photo';
  readonly systemId: string;
  readonly jobId: string | null;
  readonly caption: string;
  /** data URL, already small */
  readonly image: string;
}

/** What waits on this device for the server: entries and corrections of runs, and photographs. */
export type OutboxItem = EntryItem | PhotoItem;

/** Items of one lane keep their order; lanes do not wait for one another. */
export const laneOf = (item: OutboxItem): string => (item.kind === 'entry' ? `run ${item.runId}` : `photographs of ${item.systemId}`);

/**
 * A text that no database can store (half of a pair of code units, a zero character) is mended on the device: otherwise it
 * would be refused for ever and stand in front of everything behind it.
 */
export function mended<T>(value: T): T {
  if (typeof value === 'string') return value.replaceAll('\u0000', '').replace(LONE_HALF, '\ufffd') as T;
  if (Array.isArray(value)) return value.map((each: unknown) => mended(each)) as T;
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([key, each]) => [mended(key), mended(each as unknown)])) as T;
}

const LONE_HALF = /[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;
