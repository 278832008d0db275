import { levelNow, serviceContents } from '@core/bench/runs/contents.js';
import { computed, type ComputedRef, type Ref } from 'vue';
import type { ProcedureStep } from '@core/bench/runs/procedure.js';
import { isDone, pouredMl } from '@core/bench/runs/state.js';
import { fillFront, frontOf, standingFront } from '@core/physics/filling/fillPlan.js';
import { levelMlOf } from '@core/bench/instruments/level.js';
import type { RunDesk } from '../runs/useRun.js';
import type { LiveBench } from '../instruments/liveBench.js';
import type { FrontMark } from '../../machine/profile/drawing.js';

/** What stands in the loop of a run while it is filled, drained or refilled: for its profile. */
export function useStanding(
  desk: RunDesk,
  step: Ref<ProcedureStep | null>,
  live: LiveBench,
  now: Readonly<Ref<number>>,
): { filled: ComputedRef<ReadonlyMap<string, number> | null>; fronts: ComputedRef<readonly FrontMark[]> } {
  /** in the reservoir and on the way while filling: by the level sensor where there is one, else predicted */
  const standing = computed(() => {
    const { file, run } = desk.answer.value ?? {};
    const state = desk.state.value;
    if (!file || !run || !state || step.value?.kind !== 'fill' || state.pours.length === 0) return null;
    const poured = pouredMl(state);
    const predicted = levelNow(run.procedure, state, now.value);
    const mm = live.value('level', now.value);
    const reservoir = run.procedure.facts?.reservoir;
    const measured = reservoir && mm !== null ? levelMlOf(reservoir, mm) : null;
    const stretchesOf = (ml: number) => standingFront(file, ml, poured - ml);
    const fronts: FrontMark[] = [
      ...(predicted ? [{ kind: 'predicted' as const, front: frontOf(stretchesOf(predicted.ml)) }] : []),
      ...(measured !== null ? [{ kind: 'measured' as const, front: frontOf(stretchesOf(measured)) }] : []),
    ].flatMap(({ kind, front }) => (front ? [{ kind, id: front.id, filled: front.filled }] : []));
    const best = measured ?? predicted?.ml;
    return { fronts, stretches: best === undefined ? fillFront(file, poured) : stretchesOf(best) };
  });

  /** Before the fill the loop stands empty; while pouring the front is an estimate from volumes; afterwards it is full. */
  const filled = computed(() => {
    const { file, run } = desk.answer.value ?? {};
    const state = desk.state.value;
    if (!file || !run || !state) return null;
    if (run.procedure.service) return serviceContents(run.procedure, state);
    if (isDone(state, ({ kind }) => kind === 'fill')) return null;
    return new Map((standing.value?.stretches ?? fillFront(file, pouredMl(state))).map((each) => [each.id, each.filled]));
  });
  return {
    filled,
    fronts: computed(() => (step.value && !desk.answer.value?.run.procedure.service ? (standing.value?.fronts ?? []) : [])),
  };
}
