import type { HealthAnswer, Parts } from '@core/base/health/parts.js';
import { onScopeDispose, ref, type Ref } from 'vue';

/** s between looks: a disk fills in hours */
const LOOK_S = 300;

/** How the server's parts do; null: not known, or the server is away, which is told elsewhere. */
export function useServerHealth(): Readonly<Ref<Parts | null>> {
  const parts = ref<Parts | null>(null);
  const look = async (): Promise<void> => {
    const answer = await fetch('/api/health').catch(() => null);
    if (!answer?.ok) return;
    const health = (await answer.json().catch(() => null)) as HealthAnswer | null;
    if (health && health.status !== 'unavailable') parts.value = health.parts;
  };
  void look();
  const timer = window.setInterval(() => void look(), LOOK_S * 1000);
  onScopeDispose(() => window.clearInterval(timer));
  return parts;
}
