import { computed, onMounted, onScopeDispose, ref, shallowRef, type ComputedRef, type Ref } from 'vue';
import type { RunEvent, RunEventBody } from '@core/commissioning/events.js';
import type { Procedure, ProcedureStep } from '@core/commissioning/procedure.js';
import { lastUndoable, refuseEntry } from '@core/commissioning/rules.js';
import { replay, type RunState } from '@core/commissioning/state.js';
import type { LoopFile } from '@core/loops/loopFile.js';
import type { Debrief } from '@core/practice/debrief.js';
import type { Scenario } from '@core/simulated-bench/truth.js';
import { useSession } from '../accounts/sessionStore.js';
import { ApiError, call, get, wordsOf } from '../http/api.js';
import { usePush } from '../push/usePush.js';
import {
  dropEntry,
  entriesOf,
  keepEntry,
  refuseEntry as setEntryAside,
  rememberAnswer,
  rememberedAnswer,
  type RefusedEntry,
  type WaitingEntry,
} from '../outbox/outbox.js';
import { useBenches } from '../today/benchStore.js';
import { serverNowMs, setServerNow } from '../units/now.js';

export interface RunAnswer {
  run: {
    id: string;
    procedure: Procedure;
    state: 'active' | 'signed-off' | 'abandoned';
    startedAt: string;
    loopId: string;
    benchId: string | null;
  };
  /** a run against a simulated bench that hides a fault; null: in earnest */
  practice: { aheadMs: number; scenario: Scenario | null; debrief: Debrief | null } | null;
  benchName: string | null;
  loopName: string;
  systemId: string;
  systemName: string;
  customerName: string;
  revisionNumber: number;
  file: LoopFile;
  coolantProductId: string | null;
  events: RunEvent[];
  now: string;
}

export interface RunDesk {
  readonly answer: Ref<RunAnswer | null>;
  readonly state: ComputedRef<RunState | null>;
  readonly events: ComputedRef<readonly RunEvent[]>;
  /** entries on this device that the server does not have yet */
  readonly waiting: ComputedRef<number>;
  /** the server cannot be reached: what is shown was read before */
  readonly away: Ref<boolean>;
  /** entries that the server did not take, with its words */
  readonly refused: Ref<readonly RefusedEntry[]>;
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

/** s between looks for entries of colleagues */
const WATCH_MS = 8000;
const RETRY_MS = 3000;

/**
 * A run at the bench. An entry shows at once, is kept on the device until the server has it, and is sent in order with
 * an id of its own, so that a lost answer never makes it count twice.
 */
export function useRun(id: string): RunDesk {
  const session = useSession();
  const benches = useBenches();
  const answer = ref<RunAnswer | null>(null);
  const pending = shallowRef<readonly WaitingEntry[]>([]);
  const refused = shallowRef<readonly RefusedEntry[]>([]);
  /** true while what is shown was read before the network went away */
  const away = ref(false);
  const problem = ref<string | null>(null);
  const missing = ref(false);
  const held = shallowRef<{ body: RunEventBody; rule: string } | null>(null);
  let sending = false;
  /** entries on their way to this device's disk */
  const stored = new Map<string, Promise<void>>();
  let retry: number | undefined;

  const events = computed<readonly RunEvent[]>(() => {
    const saved = answer.value?.events ?? [];
    const known = new Set(saved.map((event) => event.id));
    const own = pending.value.filter((entry) => !known.has(entry.id));
    return [
      ...saved,
      ...own.map((entry, index): RunEvent => ({ ...entry, seq: saved.length + index + 1, by: session.account?.personName ?? '' })),
    ];
  });
  const state = computed(() => (answer.value ? replay(answer.value.run.procedure, events.value) : null));
  const aheadMs = computed(() => answer.value?.practice?.aheadMs ?? 0);
  const nowMs = (): number => serverNowMs() + aheadMs.value;
  const current = computed(() => answer.value?.run.procedure.steps.find((step) => step.id === state.value?.current) ?? null);

  /** what waits on this device is part of the run before the server is asked */
  const restored = entriesOf(id).then(
    (kept) => {
      const known = new Set(pending.value.map((entry) => entry.id));
      pending.value = [...kept.waiting.filter((entry) => !known.has(entry.id)), ...pending.value];
      refused.value = kept.refused;
    },
    () => undefined,
  );
  const drop = (entryId: string): void => {
    pending.value = pending.value.filter((entry) => entry.id !== entryId);
  };

  async function load(): Promise<void> {
    await restored;
    try {
      // a page that was opened without the network has no session's token yet
      if (!session.loaded) await session.load();
      const now = await get<RunAnswer>(`/runs/${id}`);
      setServerNow(now.now);
      answer.value = now;
      away.value = false;
      document.title = `${now.systemName} · Lavacrum`;
      void rememberAnswer(`run ${id}`, now).catch(() => undefined);
      void deliver();
    } catch (error) {
      missing.value = error instanceof ApiError && error.status === 404;
      const unreachable = error instanceof ApiError && (error.status === 0 || error.status >= 500);
      if (answer.value === null && unreachable) {
        answer.value = await rememberedAnswer<RunAnswer>(`run ${id}`).catch(() => null);
      }
      if (unreachable) away.value = true;
      if (answer.value === null) problem.value = wordsOf(error);
    }
  }

  /** Entries of colleagues and instruments, behind those this screen has. */
  async function readOn(): Promise<void> {
    const known = answer.value?.events.length ?? 0;
    try {
      const { events: more } = await get<{ events: RunEvent[] }>(`/runs/${id}/events?after=${known}`);
      if (!answer.value) return;
      const have = new Set(answer.value.events.map((event) => event.id));
      const fresh = more.filter((event) => !have.has(event.id));
      if (fresh.length > 0) answer.value = { ...answer.value, events: [...answer.value.events, ...fresh].sort((a, b) => a.seq - b.seq) };
      // a sign-off and a new scope change more than the log
      if (fresh.some(({ body }) => body.type === 'signed-off' || body.type === 'rescoped')) await load();
    } catch {
      await load();
    }
  }

  async function deliver(): Promise<void> {
    if (sending || !answer.value) return;
    sending = true;
    window.clearTimeout(retry);
    try {
      while (pending.value.length > 0) {
        const entry = pending.value[0] as WaitingEntry;
        await stored.get(entry.id);
        const { event } = await call<{ event: RunEvent }>('POST', `/runs/${id}/events`, { body: entry });
        if (!answer.value.events.some((known) => known.id === event.id))
          answer.value = { ...answer.value, events: [...answer.value.events, event] };
        drop(entry.id);
        stored.delete(entry.id);
        await dropEntry(entry.id);
        away.value = false;
        // the clocks along the edge show this run's new step at once
        if (pending.value.length === 0) void benches.refresh();
      }
    } catch (error) {
      const notTaken =
        error instanceof ApiError && error.status >= 400 && error.status < 500 && error.status !== 401 && error.status !== 429;
      if (notTaken) await setAside(wordsOf(error));
      retry = window.setTimeout(() => void deliver(), RETRY_MS);
    } finally {
      sending = false;
    }
  }

  /** The first in line was refused: a colleague was quicker, or the run is closed. It stays readable with the server's words. */
  async function setAside(why: string): Promise<void> {
    const entry = pending.value[0];
    if (!entry) return;
    problem.value = why;
    drop(entry.id);
    refused.value = [...refused.value, { ...entry, why }];
    await setEntryAside(entry.id, why).catch(() => undefined);
    await load();
  }

  function send(body: RunEventBody, at?: string): boolean {
    if (!answer.value || !state.value) return false;
    problem.value = null;
    held.value = null;
    const refusal = refuseEntry(answer.value.run.procedure, state.value, events.value, body, nowMs());
    if (refusal) {
      if (refusal.mayOverride && refusal.rule) held.value = { body, rule: refusal.rule };
      problem.value = `${refusal.message.charAt(0).toUpperCase()}${refusal.message.slice(1)}.`;
      return false;
    }
    const entry = { id: crypto.randomUUID(), at: at ?? new Date(nowMs()).toISOString(), body };
    pending.value = [...pending.value, entry];
    // on the disk before it is sent; a device that cannot write says so, and the entry still goes
    stored.set(
      entry.id,
      keepEntry(id, entry).catch(() => {
        problem.value = 'This device could not keep the entry on its disk: do not close the page before it is delivered.';
      }),
    );
    void deliver();
    return true;
  }

  onMounted(load);
  // colleagues' entries come by push; without a connection the screen asks from time to time
  const { live } = usePush({
    run: ({ runId, seq }) => {
      if (runId === id && seq > (answer.value?.events.length ?? 0)) void readOn();
    },
    resync: () => {
      if (answer.value) void load();
    },
  });
  const watcher = window.setInterval(() => {
    if (!live.value && pending.value.length === 0 && document.visibilityState === 'visible') void load();
  }, WATCH_MS);
  onScopeDispose(() => {
    window.clearInterval(watcher);
    window.clearTimeout(retry);
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
    away,
    refused,
    dismiss: (entryId) => {
      refused.value = refused.value.filter((entry) => entry.id !== entryId);
      void dropEntry(entryId).catch(() => undefined);
    },
    undoLast: () => {
      const last = state.value ? lastUndoable(events.value, state.value) : null;
      if (last) send({ type: 'withdrawn', event: last.id });
    },
  };
}
