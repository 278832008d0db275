import { ApiError, wordsOf } from '../http/api.js';
import { laneOf, mended, type Maker, type OutboxItem } from './items.js';

/** Where items are kept while they wait. */
export interface ItemStore {
  kept(): Promise<readonly OutboxItem[]>;
  keep(item: OutboxItem): Promise<void>;
  drop(id: string): Promise<void>;
}

export interface OutboxWays {
  readonly store: ItemStore;
  /** hands one item to the server; `madeBy` where somebody else is signed in than made it */
  readonly send: (item: OutboxItem, madeBy: string | null) => Promise<unknown>;
  /** who is signed in; null: nobody, nothing is sent */
  readonly who: () => Maker | null;
}

/** What the outbox holds now. */
export interface OutboxView {
  /** in the order they were made */
  readonly waiting: readonly OutboxItem[];
  /** ids of those that are on their way to the device's disk: until then they are not called kept */
  readonly keeping: ReadonlySet<string>;
  /** not taken, with the server's words in `why` */
  readonly refused: readonly OutboxItem[];
  /** the server cannot be reached */
  readonly away: boolean;
}

/** ms between two tries while something waits, doubled up to the second */
const RETRY_MS = { first: 3000, most: 30_000 } as const;
/** times that the server may fail on one item before it stands aside for those behind it */
const MOST_TRIES = 5;

type Outcome = 'delivered' | 'refused' | 'failed' | 'away';

function outcomeOf(error: unknown): Outcome {
  if (!(error instanceof ApiError)) return 'failed';
  // no network, no database, nobody signed in, or asked too often: nothing is wrong with the item
  if ([0, 401, 429, 502, 503, 504].includes(error.status)) return 'away';
  return error.status >= 500 ? 'failed' : 'refused';
}

/**
 * Everything that this device has for the server. It starts with the application and works whatever page is open: an item is
 * on the disk before it is sent, keeps its order within its lane, goes under the name of who made it, and is dropped only
 * once the server has it. One that the server does not take stands aside with its words.
 */
export class Outbox {
  private items: readonly OutboxItem[] = [];
  private away = false;
  private sending = false;
  private again = false;
  private waitMs: number = RETRY_MS.first;
  private retry: ReturnType<typeof setTimeout> | undefined;
  private readonly storing = new Map<string, Promise<void>>();
  private readonly watchers = new Set<() => void>();
  private readonly hearers = new Set<(item: OutboxItem, answer: unknown) => void>();
  private readonly keeping = new Set<string>();
  private seen: OutboxView = { waiting: [], keeping: new Set(), refused: [], away: false };
  private loaded: Promise<void> | null = null;

  constructor(private readonly ways: OutboxWays) {}

  get view(): OutboxView {
    return this.seen;
  }

  /** Reads what was kept, and delivers. Called again, it reads nothing twice. */
  start(): Promise<void> {
    this.loaded ??= this.ways.store.kept().then((kept) => {
      const known = new Set(this.items.map(({ id }) => id));
      this.show([...kept.filter(({ id }) => !known.has(id)), ...this.items]);
    });
    return this.loaded.then(
      () => this.deliver(),
      () => {
        this.loaded = null;
      },
    );
  }

  /** Called at every change. @returns how to stop */
  watch(watcher: () => void): () => void {
    this.watchers.add(watcher);
    return () => this.watchers.delete(watcher);
  }

  /** Called with the server's answer to each item. @returns how to stop */
  onDelivered(hearer: (item: OutboxItem, answer: unknown) => void): () => void {
    this.hearers.add(hearer);
    return () => this.hearers.delete(hearer);
  }

  /** Takes an item; it shows at once. Resolves once it is on the disk, rejects where the device cannot keep it: it is sent all the same. */
  add(item: OutboxItem): Promise<void> {
    const plain = mended(item);
    this.keeping.add(plain.id);
    this.show([...this.items, plain]);
    const stored = this.ways.store.keep(plain).then(() => {
      this.keeping.delete(plain.id);
      this.show(this.items);
    });
    this.storing.set(plain.id, stored.catch(() => undefined)); // prettier-ignore
    void this.deliver();
    return stored;
  }

  /** Somebody has read why it was not taken. */
  dismiss(id: string): Promise<void> {
    this.show(this.items.filter((item) => item.id !== id));
    return this.ways.store.drop(id);
  }

  /** Tries now: the network is back, somebody signed in. */
  async deliver(): Promise<void> {
    if (this.sending) {
      this.again = true;
      return;
    }
    this.sending = true;
    clearTimeout(this.retry);
    try {
      do {
        this.again = false;
        await this.round();
      } while (this.again);
    } finally {
      this.sending = false;
    }
    if (this.seen.waiting.length === 0 || !this.ways.who()) return;
    this.retry = setTimeout(() => void this.deliver(), this.waitMs);
    this.waitMs = Math.min(RETRY_MS.most, 2 * this.waitMs);
  }

  /** One pass over all lanes. A lane stops at an item that the server failed on; all stop when it is away. */
  private async round(): Promise<void> {
    const stopped = new Set<string>();
    for (;;) {
      const who = this.ways.who();
      const next = this.seen.waiting.find((item) => !stopped.has(laneOf(item)));
      if (!who || !next) return;
      // another workshop's items wait for somebody of theirs
      const outcome = next.made && next.made.workshopId !== who.workshopId ? 'failed' : await this.one(next, who);
      if (outcome === 'away') return;
      if (outcome === 'failed') stopped.add(laneOf(next));
    }
  }

  private async one(item: OutboxItem, who: Maker): Promise<Outcome> {
    await this.storing.get(item.id);
    try {
      const answer = await this.ways.send(item, item.made && item.made.personId !== who.personId ? item.made.personId : null);
      this.away = false;
      this.waitMs = RETRY_MS.first;
      this.hearers.forEach((hear) => hear(item, answer));
      this.show(this.items.filter(({ id }) => id !== item.id));
      this.storing.delete(item.id);
      this.keeping.delete(item.id);
      await this.ways.store.drop(item.id).catch(() => undefined);
      return 'delivered';
    } catch (error) {
      const outcome = outcomeOf(error);
      this.away = outcome === 'away';
      const tries = item.tries + (outcome === 'failed' ? 1 : 0);
      const aside = outcome === 'refused' || tries >= MOST_TRIES;
      await this.replace({ ...item, tries, why: aside ? wordsOf(error) : null });
      return aside ? 'refused' : outcome;
    }
  }

  private async replace(item: OutboxItem): Promise<void> {
    this.show(this.items.map((each) => (each.id === item.id ? item : each)));
    await this.ways.store.keep(item).catch(() => undefined);
  }

  private show(items: readonly OutboxItem[]): void {
    this.items = items;
    this.seen = {
      waiting: items.filter(({ why }) => why === null),
      keeping: new Set(this.keeping),
      refused: items.filter(({ why }) => why !== null),
      away: this.away,
    };
    this.watchers.forEach((watcher) => watcher());
  }
}
