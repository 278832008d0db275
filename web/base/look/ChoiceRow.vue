<script setup lang="ts" generic="T extends string | boolean">
/** One of a few, each as large as a wet finger: pressed again it is let go where that is allowed. */
const value = defineModel<T | null>({ required: true });
const props = defineProps<{ label: string; options: readonly { value: T; title: string }[]; mayBeNone?: boolean; disabled?: boolean }>();

function press(option: T): void {
  value.value = props.mayBeNone && value.value === option ? null : option;
}
</script>

<template>
  <div role="group" :aria-label="label" class="choices">
    <span class="label" aria-hidden="true">{{ label }}</span>
    <div class="buttons">
      <button
        v-for="option in options"
        :key="String(option.value)"
        type="button"
        :disabled="disabled"
        :aria-pressed="value === option.value"
        @click="press(option.value)"
      >
        {{ option.title }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.choices {
  display: grid;
  grid-template-columns: 6.6em 1fr;
  gap: 0 10px;
  align-items: center;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  padding: 0 1.5px 1.5px 0;
}
.label {
  color: var(--ink-soft);
}
button {
  min-height: 44px;
  padding: 0 12px;
  border: 1.5px solid var(--line);
  margin: 0 -1.5px -1.5px 0;
}
[aria-pressed='true'] {
  background: var(--ink);
  color: var(--ground);
  border-color: var(--ink);
}
button:disabled {
  color: var(--ink-soft);
}
</style>
