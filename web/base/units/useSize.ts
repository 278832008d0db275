import { onBeforeUnmount, onMounted, ref, type Ref } from 'vue';

type Side = 'width' | 'height';
const OF: Readonly<Record<Side, 'clientWidth' | 'clientHeight'>> = { width: 'clientWidth', height: 'clientHeight' };

function useSide(element: Ref<HTMLElement | null>, side: Side, initial: number): Ref<number> {
  const size = ref(initial);
  let observer: ResizeObserver | undefined;
  onMounted(() => {
    if (!element.value) return;
    size.value = element.value[OF[side]] || initial;
    observer = new ResizeObserver(([entry]) => {
      if (entry) size.value = entry.contentRect[side];
    });
    observer.observe(element.value);
  });
  onBeforeUnmount(() => observer?.disconnect());
  return size;
}

/** Width of an element in CSS pixels, kept current. */
export const useWidth = (element: Ref<HTMLElement | null>, initial = 800): Ref<number> => useSide(element, 'width', initial);

/** Height of an element in CSS pixels, kept current. */
export const useHeight = (element: Ref<HTMLElement | null>, initial: number): Ref<number> => useSide(element, 'height', initial);
