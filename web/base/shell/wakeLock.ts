import { onBeforeUnmount, onMounted } from 'vue';

/** Keeps the screen awake while a component is on it. The lock falls when the page is hidden, and is taken again. */
export function useWakeLock(): void {
  let lock: WakeLockSentinel | null = null;
  const take = async (): Promise<void> => {
    if (!('wakeLock' in navigator) || document.visibilityState !== 'visible') return;
    // refused on an empty battery: the screen then dims as usual
    lock = await navigator.wakeLock.request('screen').catch(() => null);
  };
  const again = (): void => void take();
  onMounted(() => {
    void take();
    document.addEventListener('visibilitychange', again);
  });
  onBeforeUnmount(() => {
    document.removeEventListener('visibilitychange', again);
    void lock?.release();
  });
}
