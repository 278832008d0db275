import type { InstrumentFace, InstrumentsAnswer, ReadingRow } from '@core/bench/instruments/answers.js';
import type { ReadingSource } from '@core/bench/runs/state.js';
import { computed, inject, ref, shallowRef, toValue, triggerRef, watch, type ComputedRef, type InjectionKey, type MaybeRefOrGetter, type Ref, type ShallowRef } from 'vue'; // prettier-ignore
import { INSTRUMENT_KINDS, type InstrumentKind, type InstrumentReading } from '@core/bench/instruments/kinds.js';
import { get } from '../../base/http/api.js';
import { usePush } from '../../base/push/usePush.js';

/** A bench's instruments as they send, on a screen that looks at it. */
export interface LiveBench {
  readonly instruments: Readonly<Ref<readonly InstrumentFace[]>>;
  /** newest value of each kind, whatever its age */
  readonly latest: Readonly<ShallowRef<ReadonlyMap<InstrumentKind, InstrumentReading>>>;
  /** readings of the last while, in their order */
  readonly history: Readonly<ShallowRef<readonly InstrumentReading[]>>;
  /** what eyes noticed last at a simulated bench */
  readonly seen: Ref<{ at: string; text: string } | null>;
  /** whose readings these are, for entries made of them; null without instruments */
  readonly source: ComputedRef<Exclude<ReadingSource, 'hand'> | null>;
  /** the value of an instrument that is there and not silent; null otherwise */
  value(kind: InstrumentKind, nowMs: number): number | null;
  refresh(): Promise<void>;
}

/** readings kept on the screen: at four a second and five kinds, a quarter of an hour */
const MOST_KEPT = 18_000;

// eslint-disable-next-line max-lines-per-function -- one composable whose parts share what was read
export function useLiveBench(benchId: MaybeRefOrGetter<string | null>): LiveBench {
  const instruments = ref<readonly InstrumentFace[]>([]);
  const latest = shallowRef(new Map<InstrumentKind, InstrumentReading>());
  const history = shallowRef<InstrumentReading[]>([]);
  const seen = ref<{ at: string; text: string } | null>(null);
  let lastId = 0;
  /** what is pushed while older readings are asked for waits: taken first, it would hide them */
  let asking = 0;
  let pushed: ReadingRow[] = [];
  /** this device's instant at which a kind was heard last: simulated clocks may be set ahead */
  const heardMs = new Map<InstrumentKind, number>();

  function take(rows: readonly ReadingRow[], heard: boolean): void {
    const fresh = rows.filter(([id]) => id > lastId);
    if (fresh.length === 0) return;
    lastId = fresh[fresh.length - 1]?.[0] ?? lastId;
    for (const [, kind, value, at] of fresh) {
      const reading = { kind, value, at };
      history.value.push(reading);
      latest.value.set(kind, reading);
      heardMs.set(kind, heard ? Date.now() : Math.min(Date.now(), Date.parse(at)));
    }
    if (history.value.length > MOST_KEPT) history.value.splice(0, history.value.length - MOST_KEPT);
    triggerRef(history);
    triggerRef(latest);
  }

  async function readOn(id: string): Promise<void> {
    asking += 1;
    try {
      await readPages(id);
    } finally {
      asking -= 1;
      if (asking === 0) {
        take(pushed, true);
        pushed = [];
      }
    }
  }

  async function readPages(id: string): Promise<void> {
    for (;;) {
      const { readings, more } = await get<{ readings: ReadingRow[]; more: boolean }>(
        `/benches/${id}/readings${lastId > 0 ? `?after=${lastId}` : ''}`,
      );
      if (toValue(benchId) !== id) return;
      take(readings, false);
      if (!more) return;
    }
  }

  /** What is missing is asked for by the last number: after a dropped connection there is no gap. */
  async function refresh(): Promise<void> {
    const id = toValue(benchId);
    if (id === null) return;
    try {
      const { benches } = await get<InstrumentsAnswer>('/instruments');
      if (toValue(benchId) !== id) return;
      instruments.value = benches.find((bench) => bench.id === id)?.instruments ?? [];
      if (instruments.value.length > 0) await readOn(id);
    } catch {
      // the run goes on by hand; the next connection asks again
    }
  }

  watch(
    () => toValue(benchId),
    () => {
      instruments.value = [];
      latest.value = new Map();
      history.value = [];
      heardMs.clear();
      lastId = 0;
      void refresh();
    },
    { immediate: true },
  );
  usePush({
    readings: (notice) => {
      if (notice.benchId !== toValue(benchId)) return;
      if (asking > 0) pushed.push(...notice.readings);
      else if (instruments.value.length > 0) take(notice.readings, true);
    },
    instruments: (notice) => {
      if (notice.benchId === toValue(benchId)) void refresh();
    },
    seen: (notice) => {
      if (notice.benchId === toValue(benchId)) seen.value = { at: notice.at, text: notice.text };
    },
    resync: () => void refresh(),
  });

  const online = computed(() => instruments.value.filter((each) => each.online));
  return {
    instruments,
    latest,
    history,
    seen,
    source: computed(() =>
      online.value.length === 0 ? null : online.value.some(({ simulated }) => simulated) ? 'simulated' : 'instrument',
    ),
    value: (kind, nowMs) => {
      // `nowMs` makes the answer depend on time: a silent instrument is no longer live
      const there = online.value.some((each) => each.kind === kind);
      const reading = latest.value.get(kind);
      if (!there || !reading || nowMs === 0) return null;
      const silentS = (Date.now() - (heardMs.get(kind) ?? 0)) / 1000;
      return silentS > INSTRUMENT_KINDS[kind].staleAfterS ? null : reading.value;
    },
    refresh,
  };
}

/** The bench a run's page looks at; its parts below ask for it. */
export const LIVE_BENCH: InjectionKey<LiveBench> = Symbol('live bench');

export const useRunBench = (): LiveBench | null => inject(LIVE_BENCH, null);
