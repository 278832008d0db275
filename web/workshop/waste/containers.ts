import { ref, type Ref } from 'vue';
import type { WasteKind } from '@core/workshop/store/schema.js';
import { get } from '../../base/http/api.js';

export interface WasteContainer {
  id: string;
  label: string;
  kind: WasteKind;
  capacityMl: number;
  levelMl: number;
  state: 'open' | 'handed-over';
  handedOn: string | null;
  handedTo: string;
  documentNumber: string;
  version: number;
}

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
