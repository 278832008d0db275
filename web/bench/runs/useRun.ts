import type { RunAnswer } from '@core/bench/benches/answers.js';
import { computed, onMounted, onScopeDispose, ref, shallowRef, type ComputedRef, type Ref } from 'vue';
import { changesProcedure, type RunEventBody } from '@core/bench/runs/entries/all.js';
import type { RunEvent } from '@core/bench/runs/log.js';
import { procedureNow } from '@core/bench/runs/alsoPulled.js';
import { inReadersWords } from '@core/bench/procedures/inReadersWords.js';
import type { ProcedureStep } from '@core/bench/runs/procedure.js';
import { RunFold } from '@core/bench/runs/replay.js';
import { lastUndoable, refuseEntry } from '@core/bench/runs/rules.js';
import type { RunState } from '@core/bench/runs/state.js';
import { refusalWords } from '@core/edge/words/bench.js';
import { asSentence, say } from '@core/base/words/say.js';
import { ApiError, get, wordsOf } from '../../base/http/api.js';
import { deviceOutbox, useOutbox } from '../../base/outbox/deviceOutbox.js';
import { rememberAnswer, rememberedAnswer } from '../../base/outbox/deviceStore.js';
import type { EntryItem } from '../../base/outbox/items.js';
import { usePush } from '../../base/push/usePush.js';
import { serverNowMs, setServerNow } from '../../base/units/now.js';
import { useSession } from '../../workshop/people/sessionStore.js';
import { useBenches } from '../benches/benchStore.js';

export interface RunDesk {
  readonly answer: Readonly<Ref<RunAnswer | null>>;
  readonly state: ComputedRef<RunState | null>;
  readonly events: ComputedRef<readonly RunEvent[]>;
  /** entries on this device that the server does not have yet */
  readonly waiting: ComputedRef<number>;
  /** ids of entries that are not even on this device's disk yet */
  readonly keeping: ComputedRef<ReadonlySet<string>>;
  /** the server cannot be reached: what is shown was read before */
  readonly away: ComputedRef<boolean>;
  /** entries that the server did not take, with its words */
  readonly refused: ComputedRef<readonly EntryItem[]>;
  /** somebody has read a refused entry */
  dismiss(entryId: string): void;
  readonly problem: Ref<string | null>;
  /** an entry that an interlock holds back and a reason may pass; null otherwise */
  readonly held: Ref<{ body: RunEventBody; rule: string } | null>;
  readonly missing: Ref<boolean>;
  readonly current: ComputedRef<ProcedureStep | null>;
  /** ms that this run's clock is set ahead; 0 but for practice */
  readonly aheadMs: ComputedRef<number>;
  /** records one entry; false when the rules refuse it, with the reason in `problem` */
  send(body: RunEventBody, at?: string): boolean;
  undoLast(): void;
  load(): Promise<void>;
}

/** ms between looks for entries of colleagues, without the event stream */
const WATCH_MS = 8000;

/**
 * A run at the bench. An entry shows at once and goes into the device's outbox, which delivers it whatever page is open.
 * The state is carried forward: only what is new is folded in.
 */
// eslint-disable-next-line max-lines-per-function -- one composable whose parts share the run on screen
export function useRun(id: string): RunDesk {
  const session = useSession();
  const benches = useBenches();
  const outbox = useOutbox();
  const read = shallowRef<RunAnswer | null>(null);
  /** true while what is shown was read before the network went away */
  const stale = ref(false);
  const problem = ref<string | null>(null);
  const missing = ref(false);
  const held = shallowRef<{ body: RunEventBody; rule: string } | null>(null);

  const isOwn = (item: { kind: string }): item is EntryItem => item.kind === 'entry' && (item as EntryItem).runId === id;
  const pending = computed(() => outbox.value.waiting.filter(isOwn));
  const refused = computed(() => outbox.value.refused.filter(isOwn));
  const events = computed<readonly RunEvent[]>(() => {
    const saved = read.value?.events ?? [];
    const known = new Set(saved.map((event) => event.id));
    const own = pending.value.filter((entry) => !known.has(entry.id));
    return [
      ...saved,
      ...own.map(({ id: entryId, at, body, made }, index): RunEvent => ({
        id: entryId,
        at,
        body,
        seq: saved.length + index + 1,
        by: made?.personName ?? session.account?.personName ?? '',
      })),
    ];
  });
  let fold: RunFold | null = null;
  const state = computed<RunState | null>(() => {
    if (!read.value) return null;
    const { procedure } = read.value.run;
    if (fold?.procedure !== procedure) fold = new RunFold(procedure);
    // the fold goes on in place; a screen sees a change by a new object, down to the mark of a single check
    return fold.sync(events.value).snapshot();
  });
  const aheadMs = computed(() => read.value?.practice?.aheadMs ?? 0);
  const nowMs = (): number => serverNowMs() + aheadMs.value;
  /** with the checks of what was pulled beside the plan */
  const answer = computed<RunAnswer | null>(() => {
    const { value: now } = read;
    const procedure = now && state.value ? procedureNow(now.run.procedure, state.value) : null;
    return now && procedure && procedure !== now.run.procedure ? { ...now, run: { ...now.run, procedure } } : now;
  });
  const current = computed(() => answer.value?.run.procedure.steps.find((step) => step.id === state.value?.current) ?? null);

  let asked = 0;
  let answered = 0;
  async function load(): Promise<void> {
    const turn = (asked += 1);
    const askedAt = performance.now();
    try {
      // a page that was opened without the network has no session's token yet
      if (!session.loaded) await session.load();
      const kept = await get<RunAnswer>(`/runs/${id}`);
      // an answer that was overtaken by a newer one would set the run and its clocks back
      if (turn < answered) return;
      answered = turn;
      setServerNow(kept.now, askedAt);
      const now = { ...kept, run: { ...kept.run, procedure: inReadersWords(kept.run.procedure) } };
      // the same steps stay the same object: what was folded with them is not folded again
      const known = read.value?.run.procedure;
      const same = known !== undefined && JSON.stringify(known) === JSON.stringify(now.run.procedure);
      read.value = same ? { ...now, run: { ...now.run, procedure: known } } : now;
      stale.value = false;
      document.title = say('{systemName} · Lavacrum', { systemName: now.systemName });
      void rememberAnswer(`run ${id}`, kept).catch(() => undefined);
    } catch (error) {
      missing.value = error instanceof ApiError && error.status === 404;
      const unreachable = error instanceof ApiError && (error.status === 0 || error.status >= 500);
      if (read.value === null && unreachable) {
        read.value = await rememberedAnswer<RunAnswer>(`run ${id}`).catch(() => null);
      }
      if (unreachable) stale.value = true;
      if (read.value === null) problem.value = wordsOf(error);
    }
    void deviceOutbox.start();
  }

  function join(more: readonly RunEvent[]): readonly RunEvent[] {
    if (!read.value) return [];
    const have = new Set(read.value.events.map((event) => event.id));
    const fresh = more.filter((event) => !have.has(event.id));
    if (fresh.length > 0) read.value = { ...read.value, events: [...read.value.events, ...fresh].sort((a, b) => a.seq - b.seq) };
    return fresh;
  }

  /** Entries of colleagues and instruments, behind those this screen has. */
  async function readOn(): Promise<void> {
    const known = read.value?.events.length ?? 0;
    try {
      const { events: more } = await get<{ events: RunEvent[] }>(`/runs/${id}/events?after=${known}`);
      // a sign-off and a new scope change more than the log
      if (join(more).some(({ body }) => body.type === 'signed-off' || changesProcedure(body))) await load();
    } catch {
      await load();
    }
  }

  const unhear = deviceOutbox.onDelivered((item, got) => {
    if (!isOwn(item)) return;
    stale.value = false;
    join([(got as { event: RunEvent }).event]);
    // the clocks along the edge show this run's new step at once
    if (pending.value.length <= 1) void benches.refresh();
  });
  let told = new Set<string>();
  const unwatch = deviceOutbox.watch(() => {
    const fresh = deviceOutbox.view.refused.filter((item) => isOwn(item) && !told.has(item.id));
    told = new Set(deviceOutbox.view.refused.map((item) => item.id));
    const last = fresh.at(-1);
    if (!last) return;
    // a colleague was quicker, or the run is closed
    problem.value = last.why;
    void load();
  });

  function send(body: RunEventBody, at?: string): boolean {
    if (!read.value || !state.value) return false;
    problem.value = null;
    held.value = null;
    const { procedure } = read.value.run;
    const refusal = refuseEntry(procedure, state.value, events.value, body, nowMs());
    if (refusal) {
      if (refusal.mayOverride && refusal.rule) held.value = { body, rule: refusal.rule };
      problem.value = asSentence(refusalWords(procedure, refusal));
      return false;
    }
    deviceOutbox
      .add({
        kind: 'entry',
        id: crypto.randomUUID(),
        at: at ?? new Date(nowMs()).toISOString(),
        made: session.account,
        why: null,
        tries: 0,
        runId: id,
        body,
      })
      .catch(() => {
        problem.value = say('This device could not keep the entry on its disk: do not close the page before it is delivered.');
      });
    return true;
  }

  onMounted(load);
  // colleagues' entries come by push; without a connection the screen asks from time to time
  const { live } = usePush({
    run: ({ runId, seq }) => {
      if (runId === id && seq > (read.value?.events.length ?? 0)) void readOn();
    },
    resync: () => {
      if (read.value) void load();
    },
  });
  const watcher = window.setInterval(() => {
    if (!live.value && pending.value.length === 0 && document.visibilityState === 'visible') void load();
  }, WATCH_MS);
  // a tablet that slept has missed the time as well as entries
  const woke = (): void => {
    if (read.value && document.visibilityState === 'visible') void load();
  };
  document.addEventListener('visibilitychange', woke);
  onScopeDispose(() => {
    document.removeEventListener('visibilitychange', woke);
    window.clearInterval(watcher);
    unhear();
    unwatch();
  });

  return {
    answer,
    state,
    events,
    problem,
    held,
    missing,
    current,
    aheadMs,
    send,
    load,
    waiting: computed(() => pending.value.length),
    keeping: computed(() => outbox.value.keeping),
    away: computed(() => stale.value || outbox.value.away),
    refused,
    dismiss: (entryId) => void deviceOutbox.dismiss(entryId).catch(() => undefined),
    undoLast: () => {
      const last = state.value ? lastUndoable(events.value, state.value) : null;
      if (last) send({ type: 'withdrawn', event: last.id });
    },
  };
}
