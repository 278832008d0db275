<script setup lang="ts">
import type { Connector } from '@core/machine/electrical/sheet.js';

/** One source of power as a bar, and what hangs on it as leads off that bar. */
defineProps<{ title: string; beside: string; connectors: readonly Connector[] }>();
const emit = defineEmits<{ add: [] }>();
</script>

<template>
  <section class="source" :aria-label="title">
    <header>
      <h2>{{ title }}</h2>
      <slot name="head" />
      <span class="quiet">{{ beside }}</span>
    </header>
    <ul class="plain-list rail">
      <template v-for="each in connectors" :key="each.id"><slot :connector="each" /></template>
      <li class="more"><button type="button" class="add" @click="emit('add')">One more on it</button></li>
    </ul>
  </section>
</template>

<style scoped>
.source {
  margin-bottom: 22px;
}
header {
  display: flex;
  align-items: baseline;
  gap: 4px 16px;
  flex-wrap: wrap;
  padding: 8px 14px;
  background: var(--slab);
  color: var(--on-slab);
  border-radius: 3px 3px 0 0;
}
header h2 {
  margin: 0;
  color: inherit;
}
header .quiet {
  color: var(--on-slab-soft);
  margin-left: auto;
}
/* the bar that leads go off from */
.rail {
  margin: 0 0 0 14px;
  border-left: 6px solid var(--slab);
}
.more {
  padding: 6px 0 6px 34px;
}
.add {
  text-decoration: underline;
  min-height: 44px;
}
</style>
