<script setup lang="ts">
import { computed, inject } from 'vue';
import { Handle, Position } from '@vue-flow/core';
import { BENDS } from './bends.js';
import type { PartData } from './scene.js';

/** A part in the front view; its ports are where tubes begin and end. */
const props = defineProps<{ id: string; data: PartData }>();
const bends = inject(BENDS);
const figure = computed(() => bends?.figures.value?.get(props.id) ?? null);
</script>

<template>
  <div class="part" :class="[data.kind, { vessel: data.vessel }]">
    <span class="label" :style="{ left: `${data.label.left}px`, top: `${data.label.top}px`, width: `${data.label.width}px` }"
      >{{ data.name }}<b v-if="figure" class="figures"><br />{{ figure }}</b></span
    >
    <Handle
      v-for="port in data.ports"
      :id="port.port"
      :key="port.port"
      type="source"
      :position="Position.Top"
      :style="{ left: `${port.left}px`, top: `${port.top}px` }"
      :class="{ used: port.used, closed: !port.used && port.closure }"
      :title="`${data.name}, ${port.port}${port.used ? '' : port.closure ? `: ${port.closure}` : ': open'}`"
    />
  </div>
</template>

<style scoped>
.part {
  width: 100%;
  height: 100%;
  border: 2px solid var(--ink);
  border-radius: 5px;
  background: color-mix(in srgb, var(--glass) 82%, transparent);
}
.part.vessel {
  border-radius: 3px;
}
.part.pump {
  border-radius: 999px;
}
.label {
  position: absolute;
  white-space: nowrap;
  z-index: 7;
  font-size: 13px;
  line-height: 1.1;
  text-align: center;
  pointer-events: none;
  color: var(--ink);
  text-shadow: 0 0 4px var(--sheet);
}
:deep(.vue-flow__handle) {
  width: 13px;
  height: 13px;
  min-width: 0;
  border-radius: 50%;
  transform: translate(-50%, -50%);
  background: var(--sheet);
  border: 2.5px solid var(--ink);
}
:deep(.vue-flow__handle.used) {
  background: var(--ink);
}
:deep(.vue-flow__handle.closed) {
  border-radius: 2px;
  background: var(--ink-soft);
}
</style>
