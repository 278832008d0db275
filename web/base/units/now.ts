import { inject, onScopeDispose, ref, toValue, watch, type InjectionKey, type MaybeRefOrGetter, type Ref } from 'vue';

/** ms that the server's clock is ahead of this device's: timers follow the server, whatever the tablet thinks. */
const aheadMs = ref(0);

/** ms, of this page's own clock: when the answer was asked for whose time was taken last */
let takenFrom = -Infinity;

/**
 * Takes the server's time from an answer. One that was overtaken by an answer asked for later would set every clock back, and is not taken.
 * @param askedAt `performance.now()` when it was asked for; missing: just now
 */
export function setServerNow(iso: string, askedAt = performance.now()): void {
  // a page's own clock that began anew knows nothing of before
  const isOvertaken = askedAt < takenFrom && takenFrom <= performance.now();
  if (isOvertaken) return;
  takenFrom = askedAt;
  aheadMs.value = Date.parse(iso) - Date.now();
}

export const serverNowMs = (): number => Date.now() + aheadMs.value;

/** The instant of what is entered now: a tablet's own clock may be hours off. */
export const serverNowIso = (): string => new Date(serverNowMs()).toISOString();

/** ms by which the clock of what is shown is set ahead: a practice run's own clock. Provided by its page. */
export const CLOCK_AHEAD: InjectionKey<Readonly<Ref<number>>> = Symbol('clock ahead');

/**
 * The server's time, ticking, or a practice run's on its page.
 * @param everyMs how often the screen needs it
 * @param ahead ms to add; without it, what the page provides
 */
export function useNow(everyMs = 1000, ahead?: MaybeRefOrGetter<number>): Ref<number> {
  const extra: MaybeRefOrGetter<number> = ahead ?? inject(CLOCK_AHEAD, ref(0));
  const read = (): number => serverNowMs() + toValue(extra);
  const now = ref(read());
  const tick = (): void => {
    now.value = read();
  };
  const timer = window.setInterval(tick, everyMs);
  // a tablet that wakes up shows the time at once, not with the next tick
  watch([() => toValue(extra), aheadMs], tick);
  onScopeDispose(() => window.clearInterval(timer));
  return now;
}
