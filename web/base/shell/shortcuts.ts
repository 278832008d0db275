import { onBeforeUnmount, onMounted } from 'vue';

/** Keys of the program. A foot pedal is a keyboard: it sends the same keys. */
export type Shortcuts = Record<string, (event: KeyboardEvent) => void>;

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName));

/** Plain keys while a component is on screen; they stay silent while somebody types or a dialog is open. */
export function useShortcuts(shortcuts: Shortcuts): void {
  const listen = (event: KeyboardEvent): void => {
    if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented || isTyping(event.target)) return;
    if (document.querySelector('.v-overlay--active.v-dialog')) return;
    const action = shortcuts[event.key];
    if (!action) return;
    event.preventDefault();
    action(event);
  };
  onMounted(() => window.addEventListener('keydown', listen));
  onBeforeUnmount(() => window.removeEventListener('keydown', listen));
}
