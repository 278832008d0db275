<script setup lang="ts">
/** A button that picks a file, or takes a picture where the device has a camera. Its words are in its slot. */
withDefaults(defineProps<{ accept: string; capture?: boolean; disabled?: boolean }>(), { capture: false, disabled: false });
const emit = defineEmits<{ picked: [file: File] }>();

function pick(event: Event): void {
  const field = event.target as HTMLInputElement;
  const file = field.files?.[0];
  if (file) emit('picked', file);
  // the same file may be picked again
  field.value = '';
}
</script>

<template>
  <label :class="{ disabled }"
    ><input type="file" :accept="accept" :capture="capture ? 'environment' : undefined" :disabled="disabled" @change="pick" /><slot
  /></label>
</template>

<style scoped>
label {
  display: inline-flex;
  align-items: center;
  min-height: 48px;
  padding: 0 18px;
  border: 1.5px solid var(--ink);
  border-radius: 3px;
  cursor: pointer;
  position: relative;
}
input {
  position: absolute;
  inset: 0;
  opacity: 0;
  cursor: pointer;
}
label:focus-within {
  outline: 3px solid var(--ring);
  outline-offset: 2px;
}
.disabled {
  color: var(--ink-soft);
}
</style>
