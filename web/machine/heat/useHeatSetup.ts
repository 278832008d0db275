import { onScopeDispose, reactive, ref, watch, type Ref } from 'vue';
import type { LoopAnswer } from '@core/workshop/machines/answers.js';
import { setupOf, type HeatSetup } from '@core/physics/heat/setup.js';
import { call, wordsOf } from '../../base/http/api.js';
import { useNotices } from '../../base/shell/notices.js';
import { useSession } from '../../workshop/people/sessionStore.js';

type Editable<T> = { -readonly [K in keyof T]: T[K] extends object ? { -readonly [P in keyof T[K]]: T[K][P] } : T[K] };
export type HeatForm = Editable<HeatSetup>;

/** ms without a change until it is kept */
const RESTS_MS = 700;

/** What is said of a loop's air and load, the same in every panel, kept with the loop as soon as a hand rests. */
export function useHeatSetup(loopId: () => string, loop: Readonly<Ref<LoopAnswer | null>>): Ref<HeatForm | null> {
  const setup = ref<HeatForm | null>(null) as Ref<HeatForm | null>;
  const notices = useNotices();
  const session = useSession();
  let keptText = '';
  let timer: number | undefined;

  async function keep(): Promise<void> {
    window.clearTimeout(timer);
    timer = undefined;
    const text = JSON.stringify(setup.value);
    if (of === null || text === keptText || !session.may('machines')) return;
    keptText = text;
    try {
      await call('PUT', `/loops/${of}/heat-setup`, { body: JSON.parse(text) as HeatSetup });
    } catch (error) {
      keptText = '';
      notices.say(wordsOf(error));
    }
  }
  /** the loop whose setup this is: read again, what was said since stays */
  let of: string | null = null;
  watch(
    loop,
    (own) => {
      if (!own || of === loopId()) return;
      of = loopId();
      setup.value = reactive(structuredClone(setupOf(own.file, own.heatSetup)) as HeatForm);
      keptText = JSON.stringify(setup.value);
    },
    { immediate: true },
  );
  watch(
    setup,
    () => {
      window.clearTimeout(timer);
      timer = window.setTimeout(() => void keep(), RESTS_MS);
    },
    { deep: true },
  );
  onScopeDispose(() => {
    if (timer !== undefined) void keep();
  });
  return setup;
}
