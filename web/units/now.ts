import { onScopeDispose, ref, type Ref } from 'vue';

/** ms that the server's clock is ahead of this device's: timers follow the server, whatever the tablet thinks. */
let aheadMs = 0;

export function setServerNow(iso: string): void {
  aheadMs = Date.parse(iso) - Date.now();
}

export const serverNowMs = (): number => Date.now() + aheadMs;

/** The server's time, ticking. @param everyMs how often the screen needs it */
export function useNow(everyMs = 1000): Ref<number> {
  const now = ref(serverNowMs());
  const timer = window.setInterval(() => {
    now.value = serverNowMs();
  }, everyMs);
  onScopeDispose(() => window.clearInterval(timer));
  return now;
}
