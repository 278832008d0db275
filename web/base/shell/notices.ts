import { defineStore } from 'pinia';
import { ref } from 'vue';

export interface Notice {
  readonly text: string;
  readonly undo?: () => unknown;
  /** what the undo is called where it is not one */
  readonly action?: string;
}

/** One line at the bottom about what just happened, with its undo. */
export const useNotices = defineStore('notices', () => {
  const current = ref<Notice | null>(null);
  return {
    current,
    say: (text: string, undo?: () => unknown, action?: string) => {
      current.value = { text, undo, action };
    },
    close: () => {
      current.value = null;
    },
  };
});
