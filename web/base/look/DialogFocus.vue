<script setup lang="ts">
import { nextTick, onBeforeUnmount, onMounted, ref } from 'vue';

/** Stands inside a dialog: its first field has the keyboard when it opens, and what opened it has it back when it closes. */
/** `keysOnly`: what is pressed next is for the dialog itself, not for a field of it */
const props = defineProps<{ keysOnly?: boolean }>();
const here = ref<HTMLElement | null>(null);
/** known before the dialog draws anything: afterwards the focus is its own */
const opener = document.activeElement instanceof HTMLElement ? document.activeElement : null;
const fieldsOf = 'input:not([type="hidden"]):not([disabled]), textarea:not([disabled]), select:not([disabled]), [role="combobox"]';

onMounted(async () => {
  await nextTick();
  const dialog = here.value?.parentElement;
  if (props.keysOnly || !dialog || (document.activeElement !== null && dialog.contains(document.activeElement))) return;
  (dialog.querySelector<HTMLElement>('[autofocus]') ?? dialog.querySelector<HTMLElement>(fieldsOf))?.focus();
});
onBeforeUnmount(() => {
  // a line of a menu is gone by then: the page itself takes it, and reading goes on from its head
  (opener?.isConnected ? opener : document.getElementById('main'))?.focus();
});
</script>

<template>
  <span ref="here" hidden />
</template>
