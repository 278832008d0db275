import { onBeforeUnmount, onMounted, ref, type Ref } from 'vue';

/** Width of an element in CSS pixels, kept current. */
export function useWidth(element: Ref<HTMLElement | null>, initial = 800): Ref<number> {
  const width = ref(initial);
  let observer: ResizeObserver | undefined;
  onMounted(() => {
    if (!element.value) return;
    width.value = element.value.clientWidth || initial;
    observer = new ResizeObserver(([entry]) => {
      if (entry) width.value = entry.contentRect.width;
    });
    observer.observe(element.value);
  });
  onBeforeUnmount(() => observer?.disconnect());
  return width;
}
