import { ref, watch, type Ref } from 'vue';

/** How a text becomes a value and a value a text. */
export interface TypedBy {
  /** null: the text means nothing */
  readonly parse: (text: string) => string | null;
  readonly show: (value: string) => string;
  /** counts while it is typed: it can mean nothing else. A part of it waits until the field is left */
  readonly isWhole: (text: string) => boolean;
}

/** A field that takes what people type and shows it, once it is left, as its reader writes it. An empty one is ''. */
export function useTypedField(value: Ref<string>, { parse, show, isWhole }: TypedBy) {
  const shown = (held: string): string => (held === '' ? '' : show(held));
  const text = ref(shown(value.value));
  const wrong = ref(false);
  watch(value, (now) => {
    if (parse(text.value) !== now) text.value = shown(now);
  });

  function take(): void {
    const typed = text.value.trim() === '' ? '' : parse(text.value);
    wrong.value = typed === null;
    if (typed !== null) value.value = typed;
  }
  function typing(raw: string | null): void {
    text.value = raw ?? '';
    wrong.value = false;
    if (text.value.trim() === '' || isWhole(text.value.trim())) take();
  }
  /** @returns whether what stands there means something */
  function leave(): boolean {
    take();
    if (!wrong.value) text.value = shown(value.value);
    return !wrong.value;
  }
  function set(next: string): void {
    value.value = next;
    text.value = shown(next);
    wrong.value = false;
  }
  return { text, wrong, typing, leave, set };
}
