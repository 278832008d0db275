import { defineStore } from 'pinia';
import { ref } from 'vue';

export interface Notice {
  readonly text: string;
  readonly undo?: () => unknown;
}

/** One line at the bottom about what just happened, with its undo. */
export const useNotices = defineStore('notices', () => {
  const current = ref<Notice | null>(null);
  return {
    current,
    say: (text: string, undo?: () => unknown) => {
      current.value = { text, undo };
    },
    close: () => {
      current.value = null;
    },
  };
});
