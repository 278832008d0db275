import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { effectScope, ref } from 'vue';
import { SWITCH_RESTS_MS, usePumpSwitch } from './pumpSwitch.js';

describe('the pump’s switch rests after a stop', () => {
  const scope = effectScope();
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  it('starts nothing for a second once the pump has stopped, and never holds back a stop', () => {
    const on = ref(false);
    const { rests } = scope.run(() => usePumpSwitch(on)) as ReturnType<typeof usePumpSwitch>;
    expect(rests.value, 'a page opened beside a standing pump').toBe(false);
    on.value = true;
    expect(rests.value).toBe(false);
    on.value = false;
    expect(rests.value).toBe(true);
    vi.advanceTimersByTime(SWITCH_RESTS_MS - 1);
    expect(rests.value).toBe(true);
    vi.advanceTimersByTime(1);
    expect(rests.value).toBe(false);
  });

  it('is free at once when another hand starts it meanwhile', () => {
    const on = ref(true);
    const { rests } = scope.run(() => usePumpSwitch(on)) as ReturnType<typeof usePumpSwitch>;
    on.value = false;
    on.value = true;
    expect(rests.value).toBe(false);
    scope.stop();
  });
});
