import { say } from '@core/base/words/say.js';
import { computed, ref, shallowRef, watch, type ComputedRef, type Ref } from 'vue';
import { emptyLoop } from '@core/machine/catalogue/starters.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';

export interface Draft {
  readonly name: string;
  readonly coolantProductId: string | null;
  readonly file: LoopFile;
}

export interface LoopDraft {
  readonly draft: ComputedRef<Draft>;
  readonly dirty: ComputedRef<boolean>;
  readonly canUndo: ComputedRef<boolean>;
  readonly canRedo: ComputedRef<boolean>;
  /** true when an unsaved draft of this device was put back */
  readonly restored: Ref<boolean>;
  change(change: Partial<Draft>): void;
  undo(): void;
  redo(): void;
  /** undo and redo on the keys that every editor has them on; a field keeps its own */
  onKey(event: KeyboardEvent): void;
  /** what the server has now; keeps a stored draft made from the same version */
  begin(saved: Draft, version: number): void;
  /** throws the draft away and stands on what is saved */
  forget(): void;
}

const MOST_STEPS = 200;

/** An editable copy of a loop with undo and redo, kept on this device until it is saved. @param key where it is kept */
export function useLoopDraft(key: () => string): LoopDraft {
  const blank: Draft = { name: say('Main loop'), coolantProductId: null, file: emptyLoop('Main loop') };
  const saved = shallowRef<Draft>(blank);
  const steps = shallowRef<readonly Draft[]>([blank]);
  const at = ref(0);
  const restored = ref(false);
  let version = 0;

  const draft = computed(() => steps.value[at.value] as Draft);
  const dirty = computed(() => JSON.stringify(draft.value) !== JSON.stringify(saved.value));

  watch([draft, dirty], () => {
    if (dirty.value) localStorage.setItem(key(), JSON.stringify({ version, draft: draft.value }));
    else localStorage.removeItem(key());
  });

  function stored(): Draft | null {
    try {
      const found = JSON.parse(localStorage.getItem(key()) ?? 'null') as { version: number; draft: Draft } | null;
      return found && found.version === version ? found.draft : null;
    } catch {
      return null;
    }
  }

  function stand(on: readonly Draft[]): void {
    steps.value = on;
    at.value = on.length - 1;
  }

  const undo = (): void => {
    if (at.value > 0) at.value -= 1;
  };
  const redo = (): void => {
    if (at.value < steps.value.length - 1) at.value += 1;
  };
  /** undo and redo on the keys that every editor has them on; a field keeps its own */
  function onKey(event: KeyboardEvent): void {
    if (!(event.ctrlKey || event.metaKey) || (event.target as HTMLElement).tagName === 'INPUT') return;
    if (event.key === 'z') {
      event.preventDefault();
      undo();
    }
    if (event.key === 'y') {
      event.preventDefault();
      redo();
    }
  }

  return {
    onKey,
    draft,
    dirty,
    restored,
    canUndo: computed(() => at.value > 0),
    canRedo: computed(() => at.value < steps.value.length - 1),
    change(change) {
      const next = { ...draft.value, ...change };
      stand([...steps.value.slice(0, at.value + 1), next].slice(-MOST_STEPS));
    },
    undo,
    redo,
    begin(now, nowVersion) {
      version = nowVersion;
      saved.value = now;
      const kept = stored();
      restored.value = kept !== null && JSON.stringify(kept) !== JSON.stringify(now);
      stand(kept ? [now, kept] : [now]);
    },
    forget() {
      restored.value = false;
      stand([saved.value]);
    },
  };
}
