import { onBeforeUnmount, onMounted } from 'vue';
import { ALWAYS, type KeyAction } from './actions.js';
import { actionOf, activeKey } from './assigned.js';

/** What keys do on a page. A foot pedal is a keyboard: it sends the same keys. */
export type Shortcuts = Partial<Record<KeyAction, () => void>>;

/** Inputs that take no text: a finger that ticked a box leaves the cursor there, and keys go on. */
const TOUCHED = ['checkbox', 'radio', 'button', 'submit', 'reset', 'range', 'file', 'color'];

function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (target instanceof HTMLInputElement) return !TOUCHED.includes(target.type);
  return target.isContentEditable || target instanceof HTMLTextAreaElement || target instanceof HTMLSelectElement;
}

/** A dialog or a list is open over the page: keys are for it. */
const isCovered = (): boolean => document.querySelector('.v-overlay--active:is(.v-dialog, .v-menu)') !== null;

/** What Enter does by itself where the cursor stands. */
const isPressed = (target: EventTarget | null): boolean =>
  target instanceof Element && target.closest('button, a[href], summary, [role="button"], [role="option"], [role="menuitem"]') !== null;

/** What a key does now where the cursor stands; null: it is not ours there. */
function actionNow({ key, target, ctrlKey, metaKey, altKey }: KeyboardEvent): KeyAction | null {
  if (ctrlKey || metaKey || altKey) return null;
  const action = actionOf(key);
  if (action === null || ALWAYS.includes(action)) return action;
  if (isTyping(target)) return null;
  // the pump's key starts nothing that nobody sees, but stops at any time
  if (activeKey(action) === null || isCovered()) return action === 'pump' ? 'pump-off' : null;
  return key === 'Enter' && isPressed(target) ? null : action;
}

/**
 * Keys while a component is on screen. They stay silent while somebody types, over a dialog, in an open list and where
 * they are turned off, but for those that are always safe.
 */
export function useShortcuts(shortcuts: Shortcuts): void {
  const taking =
    (isFirst: boolean) =>
    (event: KeyboardEvent): void => {
      const action = actionNow(event);
      const does = action && shortcuts[action];
      if (!does || isFirst !== ALWAYS.includes(action) || event.defaultPrevented) return;
      event.preventDefault();
      if (isFirst) event.stopPropagation();
      does();
    };
  // what is always taken comes before a field or a list sees it; of the rest, a part of the page may take its own first
  const [first, then] = [taking(true), taking(false)];
  onMounted(() => {
    window.addEventListener('keydown', first, { capture: true });
    window.addEventListener('keydown', then);
  });
  onBeforeUnmount(() => {
    window.removeEventListener('keydown', first, { capture: true });
    window.removeEventListener('keydown', then);
  });
}
