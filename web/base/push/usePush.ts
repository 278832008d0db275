import { onScopeDispose, ref, type Ref } from 'vue';
import type { InstrumentKind } from '@core/bench/instruments/kinds.js';

/** Number, kind, value, ISO instant of a reading, as the server numbered it. */
export type ReadingRow = readonly [id: number, kind: InstrumentKind, value: number, at: string];

export interface PushTopics {
  /** an entry joined a run's log */
  readonly run?: (notice: { runId: string; seq: number }) => void;
  /** instruments of a bench sent something */
  readonly readings?: (notice: { benchId: string; readings: readonly ReadingRow[] }) => void;
  /** an instrument came or went */
  readonly instruments?: (notice: { benchId: string }) => void;
  /** what eyes notice at a simulated bench */
  readonly seen?: (notice: { benchId: string; at: string; text: string }) => void;
  /** due dates of machines moved */
  readonly dates?: () => void;
  /** an owner sent something, or what waits for owners changed */
  readonly owners?: () => void;
  /** a machine came to a bench or left it */
  readonly benches?: () => void;
  /** the connection is new, or had a gap: fetch what is shown */
  readonly resync?: () => void;
}

const KINDS = ['run', 'benches', 'dates', 'owners', 'readings', 'instruments', 'seen'] as const;

/** A browser opens few connections to one server: all components of a page share one stream. */
const watching = new Set<PushTopics>();
const live = ref(false);
let source: EventSource | null = null;

function open(): void {
  source = new EventSource('/api/stream');
  source.addEventListener('open', () => {
    live.value = true;
  });
  source.addEventListener('error', () => {
    live.value = false;
    // refused for good (signed out, server replaced): the next component that watches tries anew
    if (source?.readyState === EventSource.CLOSED) close();
  });
  source.addEventListener('resync', () => watching.forEach((topics) => topics.resync?.()));
  for (const kind of KINDS)
    source.addEventListener(kind, (event) => {
      const notice = JSON.parse((event as MessageEvent<string>).data) as never;
      watching.forEach((topics) => topics[kind]?.(notice));
    });
}

function close(): void {
  source?.close();
  source = null;
  live.value = false;
}

/**
 * Watches the workshop's event stream while a component lives. Browsers reconnect by themselves; each new connection
 * begins with `resync`. `live` is false while there is no connection: the screen then asks from time to time instead.
 */
export function usePush(topics: PushTopics): { live: Readonly<Ref<boolean>> } {
  if (typeof EventSource === 'undefined') return { live };
  watching.add(topics);
  if (!source) open();
  onScopeDispose(() => {
    watching.delete(topics);
    if (watching.size === 0) close();
  });
  return { live };
}
