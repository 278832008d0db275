import { sharesByBook, sharesInside } from '@core/bench/runs/standing.js';
import type { Shares } from '@core/physics/contents/shares.js';
import { computed, type ComputedRef, type Ref } from 'vue';
import type { ProcedureStep } from '@core/bench/runs/procedure.js';
import { fillFront } from '@core/physics/filling/fillPlan.js';
import { levelMlOf } from '@core/bench/instruments/level.js';
import type { RunDesk } from '../runs/useRun.js';
import type { LiveBench } from '../instruments/liveBench.js';
import type { FrontMark } from '@core/physics/profile/drawing.js';

/** share from which a stretch counts as full: gas above a radiator's ports stays behind the front */
const FULL_SHARE = 0.9;

/** What stands in the loop of a run while it is filled, drained or refilled: for its profile. */
export function useStanding(
  desk: RunDesk,
  step: Ref<ProcedureStep | null>,
  live: LiveBench,
  now: Readonly<Ref<number>>,
): {
  filled: ComputedRef<ReadonlyMap<string, number> | null>;
  fronts: ComputedRef<readonly FrontMark[]>;
  measuredMl: ComputedRef<number | null>;
} {
  const measuredMl = computed(() => {
    const mm = live.value('level', now.value);
    const reservoir = desk.answer.value?.run.procedure.facts?.reservoir;
    return reservoir && mm !== null ? levelMlOf(reservoir, mm) : null;
  });
  const byBook = (measured: number | null): Shares | null => {
    const run = desk.answer.value?.run;
    return run && desk.state.value ? sharesByBook(run.procedure, desk.state.value, now.value, measured) : null;
  };
  /** where the front stands while filling: the first stretch on the way that is not full */
  const fronts = computed((): FrontMark[] => {
    const { file } = desk.answer.value ?? {};
    const state = desk.state.value;
    if (!file || step.value?.kind !== 'fill' || !state || state.pours.length === 0 || state.contents.standing?.isRound) return [];
    const marks = [
      ['predicted', byBook(null)] as const,
      ...(measuredMl.value === null ? [] : [['measured', byBook(measuredMl.value)] as const]),
    ];
    return marks.flatMap(([kind, shares]): FrontMark[] => {
      const way = shares
        ? fillFront(file, 0)
            .slice(1)
            .map(({ id }) => ({ id, filled: shares[id] ?? 0 }))
        : [];
      const end = way.findIndex(({ filled }) => filled < FULL_SHARE);
      const at = end > 0 && (way[end]?.filled ?? 0) < 0.01 ? way[end - 1] : way[end];
      return at && at.filled > 0 ? [{ kind, id: at.id, filled: at.filled }] : [];
    });
  });

  const filled = computed(() => {
    const { file, run } = desk.answer.value ?? {};
    const state = desk.state.value;
    if (!file || !run || !state) return null;
    const shares = sharesInside(run.procedure, file, state, now.value, measuredMl.value);
    return shares && new Map(Object.entries(shares));
  });
  return { filled, fronts, measuredMl };
}
