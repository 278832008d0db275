<script setup lang="ts">
import { computed } from 'vue';
import type { Typing } from './useKeyPad.js';

/** Figures under a wet finger: large keys over the checks, never over order, figure, caution or pump. */
const props = defineProps<{ typing: Typing }>();
/** each key and its place on the pad */
const KEYS: readonly (readonly [string, string])[] = [
  ...Array.from('1234567890', (digit) => [digit, `k${digit}`] as const),
  [',', 'comma'],
  ['−', 'sign'],
];
const label = computed(() => {
  const field = props.typing.field.value;
  return field?.getAttribute('aria-label') ?? field?.labels?.[0]?.textContent?.trim() ?? '';
});
</script>

<template>
  <!-- what is pressed here leaves the focus in the field -->
  <div class="pad" role="group" :aria-label="`Keys for ${label}`" @pointerdown.prevent @mousedown.prevent>
    <button v-for="[key, place] in KEYS" :key="key" type="button" tabindex="-1" :style="{ gridArea: place }" @click="typing.type(key)">
      {{ key }}
    </button>
    <button type="button" tabindex="-1" class="wide rub" aria-label="Rub out the last" @click="typing.rubOut">⌫</button>
    <button type="button" tabindex="-1" class="wide next" @click="typing.next">next</button>
    <button type="button" tabindex="-1" class="wide shut" @click="typing.close">close</button>
  </div>
</template>

<style scoped>
.pad {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  grid-auto-rows: minmax(48px, 1fr);
  grid-template-areas:
    'k1 k2 k3 rub'
    'k4 k5 k6 sign'
    'k7 k8 k9 shut'
    'comma k0 next next';
  gap: 6px;
  padding: 6px;
  background: var(--well);
  border-top: 3px solid var(--ink);
  min-height: 0;
}
button {
  background: var(--sheet);
  border: 1.5px solid var(--line);
  border-radius: 3px;
  font-size: 1.6rem;
  font-weight: 500;
  font-variant-numeric: tabular-nums;
  touch-action: manipulation;
}
.wide {
  font-size: 1.1rem;
}
.rub {
  grid-area: rub;
}
.shut {
  grid-area: shut;
}
.next {
  grid-area: next;
  background: var(--ink);
  color: var(--ground);
}
button:active {
  background: var(--ink);
  color: var(--ground);
}
@media (max-width: 1000px) {
  .pad {
    grid-template-columns: repeat(8, minmax(0, 1fr));
    grid-template-areas:
      'k1 k2 k3 k4 k5 k6 k7 k8'
      'k9 k0 comma sign rub shut next next';
    grid-area: checks;
    z-index: 1;
  }
}
</style>
