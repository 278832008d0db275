import { say } from '@core/base/words/say.js';
import { formatMl } from '@core/base/units/display.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { computed, ref, watch, type ComputedRef, type Ref } from 'vue';
import type { Procedure } from '@core/bench/runs/procedure.js';
import { drawnJugMl } from '@core/bench/runs/drawDown.js';
import type { PourFrom, RunState } from '@core/bench/runs/state.js';
import { liquidAt, WATER, type Liquid } from '@core/machine/liquids/fluids.js';
import { ownJugMl } from '@core/physics/contents/ledger.js';
import { levelMlOf } from '@core/bench/instruments/level.js';
import { pouredByScale, type ScalePour } from '@core/bench/instruments/pours.js';
import { useRunBench } from '../instruments/liveBench.js';
import { useNow } from '../../base/units/now.js';

export interface Pour {
  readonly volume: Ref<number | null>;
  /** what the scale has seen and nobody entered yet; null without a scale */
  readonly weighed: ComputedRef<ScalePour | null>;
  /** in words, for the hand that waits for the scale; null without one */
  readonly scaleWords: ComputedRef<string | null>;
  /** mL in the reservoir by its sensor; null without one */
  readonly levelMl: ComputedRef<number | null>;
  /** mL that stand in jugs of this very loop: what came out in this job, what was drawn down in this run */
  readonly jugsMl: ComputedRef<Readonly<Record<PourFrom, number>>>;
  /** the jug that the pour comes out of; null: the bottle */
  readonly from: Ref<PourFrom | null>;
  /** the entry, and an empty field; null where there is nothing to enter */
  take(): RunEventBody | null;
}

/** mL in a jug that are worth putting back */
export const WORTH_PUTTING_BACK_ML = 20;

/** °C at which the can is weighed */
const CAN_C = 21;

/** A pour as the jug or the scale under the can says it. A hand that types another value than the scale's is right. */
export function usePour(props: { procedure: Procedure; state: RunState; liquid?: Liquid }): Pour {
  const bench = useRunBench();
  const now = useNow(500);
  const volume = ref<number | null>(null);
  const proposedMl = ref<number | null>(null);
  const jugsMl = computed(() => ({ 'own-jug': ownJugMl(props.state.service.flows), 'drawn-off': drawnJugMl(props.state) }));
  const from = ref<PourFrom | null>(null);
  // what was drawn down for a leak goes back first
  watch(
    () => jugsMl.value['drawn-off'] >= WORTH_PUTTING_BACK_ML,
    (stands, stood) => {
      if (stands) from.value = 'drawn-off';
      else if (stood && from.value === 'drawn-off') from.value = null;
    },
    { immediate: true },
  );
  const densityKgL = computed(() => liquidAt(props.liquid ?? WATER, CAN_C).densityKgM3 / 1000);
  const weighed = computed(() => {
    if (!bench || bench.value('scale', now.value) === null) return null;
    const { pours, service, steps } = props.state;
    const last = (of: readonly (string | null | undefined)[]): string | undefined =>
      of
        .filter((at) => typeof at === 'string')
        .sort()
        .at(-1);
    const since = last([pours.at(-1)?.at, service.rinses.at(-1)?.at]) ?? last(steps.map(({ doneAt }) => doneAt));
    return since ? pouredByScale(bench.history.value, since, densityKgL.value) : null;
  });
  watch(weighed, (pour) => {
    if (!pour || !pour.steady || pour.ml <= 0 || (volume.value !== null && volume.value !== proposedMl.value)) return;
    proposedMl.value = Math.round(pour.ml);
    volume.value = proposedMl.value;
  });
  return {
    jugsMl,
    from,
    volume,
    weighed,
    scaleWords: computed(() => {
      const pour = weighed.value;
      if (!pour) return null;
      if (!pour.steady) return say('The scale still moves.');
      return pour.ml > 0
        ? say('The can lost {formatMl} since the last entry.', { formatMl: formatMl(pour.ml) })
        : say('The can stands on its scale; what it loses comes here by itself.');
    }),
    levelMl: computed(() => {
      const reservoir = props.procedure.facts?.reservoir;
      const mm = bench?.value('level', now.value) ?? null;
      return reservoir && mm !== null ? levelMlOf(reservoir, mm) : null;
    }),
    take: () => {
      if (volume.value === null || volume.value <= 0) return null;
      const source = volume.value === proposedMl.value ? bench?.source.value : null;
      const body: RunEventBody = {
        type: 'pour',
        volumeMl: volume.value,
        ...(source ? { source } : {}),
        ...(from.value && jugsMl.value[from.value] > 0 ? { from: from.value } : {}),
      };
      volume.value = null;
      proposedMl.value = null;
      return body;
    },
  };
}
