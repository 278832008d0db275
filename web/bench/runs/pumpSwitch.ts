import { fillOrder } from '@core/bench/runs/fillOrder.js';
import type { Procedure } from '@core/bench/runs/procedure.js';
import type { RunState } from '@core/bench/runs/state.js';
import { onScopeDispose, readonly, ref, watch, type Ref } from 'vue';

/** ms after the pump stopped in which its switch starts nothing: longer than a hand needs to take in that it has stopped */
export const SWITCH_RESTS_MS = 1000;

/**
 * Whether the switch rests: on one button "off" becomes "on" when a guard stops the pump, and a hand that meant
 * "off" in that very moment, or pressed twice, must not start it again. Stopping is taken at any time.
 * @param on whether the pump runs
 */
export function usePumpSwitch(on: Readonly<Ref<boolean>>): { rests: Readonly<Ref<boolean>> } {
  const rests = ref(false);
  let timer: ReturnType<typeof setTimeout> | undefined;
  watch(
    on,
    (is, was) => {
      clearTimeout(timer);
      rests.value = was && !is;
      if (rests.value) timer = setTimeout(() => (rests.value = false), SWITCH_RESTS_MS);
    },
    { flush: 'sync' },
  );
  onScopeDispose(() => clearTimeout(timer));
  return { rests: readonly(rests) };
}

/** The speed that the next order asks for, so that the book reckons with it; nothing while the pump runs. */
export function orderedSpeed(procedure: Procedure | null, state: RunState | null, nowMs: number): { speed?: number } {
  const order = procedure && state && state.pump?.on !== true ? fillOrder(procedure, state, nowMs) : null;
  return order?.do === 'pump-on' && order.speed !== null ? { speed: order.speed } : {};
}
