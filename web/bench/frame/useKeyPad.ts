import { onMounted, onScopeDispose, ref, type Ref } from 'vue';

/** The field that a finger is in; null: none, or hands type on a real keyboard. */
export interface Typing {
  readonly field: Readonly<Ref<HTMLInputElement | null>>;
  /** a figure, a comma or a sign at the end of what stands there */
  type(text: string): void;
  rubOut(): void;
  /** on to the next figure of the step, or out of the last */
  next(): void;
  close(): void;
}

const isFigure = (target: EventTarget | null): target is HTMLInputElement =>
  target instanceof HTMLInputElement && (target.inputMode === 'decimal' || target.dataset.pad === '');

/** A field's text as if it had been typed: the listeners of its component hear it. */
function put(field: HTMLInputElement, text: string): void {
  field.value = text;
  field.dispatchEvent(new Event('input', { bubbles: true }));
}

/**
 * A key pad for figures under wet fingers: it comes where a field is touched, instead of the device's keyboard, which covers half of
 * what hands must see. A mouse or a real keyboard never meets it.
 * @param frame the step's frame; fields outside it are left to the device
 */
export function useKeyPad(frame: Ref<HTMLElement | null>): Typing {
  const field = ref<HTMLInputElement | null>(null);

  /** before the field has the focus, or the device's keyboard is up already */
  function touched(event: PointerEvent): void {
    if (!isFigure(event.target)) return;
    const byFinger = event.pointerType === 'touch';
    event.target.inputMode = byFinger ? 'none' : 'decimal';
    if (byFinger) event.target.dataset.pad = '';
    else delete event.target.dataset.pad;
    if (document.activeElement === event.target) field.value = byFinger ? event.target : null;
  }
  const focused = ({ target }: FocusEvent): void => {
    field.value = isFigure(target) && target.dataset.pad === '' ? target : null;
  };
  const left = ({ relatedTarget }: FocusEvent): void => {
    if (!isFigure(relatedTarget)) field.value = null;
  };

  onMounted(() => {
    frame.value?.addEventListener('pointerdown', touched, { capture: true });
    frame.value?.addEventListener('focusin', focused);
    frame.value?.addEventListener('focusout', left);
  });
  onScopeDispose(() => {
    frame.value?.removeEventListener('pointerdown', touched, { capture: true });
    frame.value?.removeEventListener('focusin', focused);
    frame.value?.removeEventListener('focusout', left);
  });

  return {
    field,
    type: (text) => {
      if (!field.value) return;
      const now = field.value.value;
      // a sign belongs in front, and turns round what stands there
      put(field.value, text === '−' ? (now.startsWith('-') ? now.slice(1) : `-${now}`) : `${now}${text}`);
    },
    rubOut: () => {
      if (field.value) put(field.value, field.value.value.slice(0, -1));
    },
    next: () => {
      const own = field.value;
      if (!own || !frame.value) return;
      const all = [...frame.value.querySelectorAll('input')].filter(
        (each) => isFigure(each) && !each.disabled && each.offsetParent !== null,
      );
      const following = all[all.indexOf(own) + 1];
      if (!following) return own.blur();
      following.inputMode = 'none';
      following.dataset.pad = '';
      following.focus();
    },
    close: () => field.value?.blur(),
  };
}
