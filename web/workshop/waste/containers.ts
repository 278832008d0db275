import type { WasteContainer } from '@core/workshop/store/answers.js';
import { ref, type Ref } from 'vue';
import { get } from '../../base/http/api.js';

/** Containers that still take something. Away from the network none is offered: what came out is entered all the same. */
export function useOpenContainers(): { containers: Ref<WasteContainer[]>; load: () => Promise<void> } {
  const containers = ref<WasteContainer[]>([]);
  const load = async (): Promise<void> => {
    const answer = await get<{ containers: WasteContainer[] }>('/waste').catch(() => null);
    if (answer) containers.value = answer.containers.filter(({ state }) => state === 'open');
  };
  void load();
  return { containers, load };
}
