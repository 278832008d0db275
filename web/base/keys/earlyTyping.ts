import { onScopeDispose, ref, watch, type Ref } from 'vue';

/** ms after which a field that did not come is not waited for */
const PATIENCE_MS = 3000;

/**
 * Letters and digits between the moment something is opened and the moment its field is there. They neither get lost nor act as keys of
 * the page: a digit on its way into a telephone number must not turn the page.
 */
export function useEarlyTyping(isOpen: Readonly<Ref<boolean>>): { readonly typed: Readonly<Ref<string>>; readonly end: () => void } {
  const typed = ref('');
  let takes = false;
  let late: number | undefined;
  const take = (event: KeyboardEvent): void => {
    if (!takes || event.key.length !== 1 || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    event.stopImmediatePropagation();
    typed.value += event.key;
  };
  window.addEventListener('keydown', take, { capture: true });
  onScopeDispose(() => {
    window.removeEventListener('keydown', take, { capture: true });
    window.clearTimeout(late);
  });
  watch(
    isOpen,
    (open) => {
      takes = open;
      typed.value = '';
      window.clearTimeout(late);
      // a field that never comes must not keep the keys
      if (open) late = window.setTimeout(() => (takes = false), PATIENCE_MS);
    },
    { flush: 'sync' },
  );
  return { typed, end: () => (takes = false) };
}
