import { say } from '@core/base/words/say.js';
import { computed, type ComputedRef } from 'vue';
import type { LoopAnswer } from '@core/workshop/machines/answers.js';
import { isOutline } from '@core/machine/loop-file/outline.js';
import { get } from '../../base/http/api.js';
import { usePage, type Page } from '../../base/http/usePage.js';
import { useCoolants } from '../../workshop/coolants/coolantStore.js';

/** One saved loop with the workshop's coolants: its liquid is part of what a page computes. */
export function useLoopPage(id: () => string): {
  loop: Page<LoopAnswer>['data'];
  problem: ComputedRef<string | null>;
  notDrawn: ComputedRef<string | null>;
} {
  const coolants = useCoolants();
  const { data, problem, missing } = usePage(async (signal) => {
    await coolants.load();
    return get<LoopAnswer>(`/loops/${id()}`, signal);
  }, id);
  const notDrawn = computed(() =>
    data.value && isOutline(data.value.file)
      ? say('Nobody laid out {systemName}’s loop yet.', { systemName: data.value.systemName })
      : null,
  );
  return {
    loop: data,
    problem: computed(() => (missing.value ? say('There is no such loop in this workshop.') : (problem.value ?? notDrawn.value))),
    notDrawn,
  };
}
