import { computed, type ComputedRef } from 'vue';
import { conditionWords, risenPercent } from '@core/edge/words/condition.js';
import { conditionOf, risenMostK } from '@core/physics/condition/series.js';
import { partName } from '@core/physics/diagnosis/sensors.js';
import type { PartHeld } from '@core/workshop/jobs/waysOn.js';
import type { ConditionPage } from '@core/workshop/logs/answers.js';
import { get } from '../../base/http/api.js';
import { usePage } from '../../base/http/usePage.js';

/** One part of a machine in a line. */
export interface SaidByPart {
  readonly part: string;
  readonly name: string;
  readonly risen: number | null;
  readonly isOver: boolean;
  readonly words: string;
}

/** What a machine says by itself: its readings under load, today's among them. @param systemId null: nothing is asked */
export function useSays(systemId: () => string | null): {
  lines: ComputedRef<SaidByPart[]>;
  risenK: ComputedRef<number | null>;
  /** the newest reading that counts of the first part that has one */
  held: ComputedRef<(PartHeld & { readonly name: string }) | null>;
  /** what it says is known, or cannot be */
  settled: ComputedRef<boolean>;
} {
  const { data: page, settled } = usePage((signal) => get<ConditionPage>(`/systems/${systemId()}/condition`, signal), systemId);
  const conditions = computed(() => {
    const { parts = [], readings = [], marks = [], limits = null } = (page.value ?? {}) as Partial<ConditionPage>;
    return limits && readings.length > 0 ? conditionOf(parts, readings, marks, limits).filter(({ points }) => points.length > 0) : [];
  });
  return {
    lines: computed(() =>
      conditions.value.map((condition) => ({
        part: condition.part,
        name: partName(page.value?.parts ?? [], condition.part),
        risen: risenPercent(condition),
        isOver: condition.isOver,
        words: conditionWords(condition),
      })),
    ),
    held: computed(() => {
      const [own] = conditions.value.filter(({ counted }) => counted.length > 0);
      const last = own?.counted.at(-1);
      return own && last
        ? { sensor: own.part, name: partName(page.value?.parts ?? [], own.part), kPerW: last.theta, sd: last.sd, powerW: last.powerW }
        : null;
    }),
    risenK: computed(() => risenMostK(conditions.value)),
    settled,
  };
}
