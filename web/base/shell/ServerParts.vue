<script setup lang="ts">
import { partLines } from '@core/edge/words/health.js';
import { computed } from 'vue';
import { useServerHealth } from './serverHealth.js';

/** What the server stands on, and what of it needs somebody. */
const parts = useServerHealth();
const lines = computed(() => (parts.value ? partLines(parts.value) : []));
</script>

<template>
  <section>
    <h2>Server</h2>
    <p v-if="lines.length === 0" class="quiet">Not known at this moment.</p>
    <dl v-else class="parts">
      <template v-for="line in lines" :key="line.part">
        <dt :class="{ wrong: !line.well }">{{ line.name }}</dt>
        <dd :class="line.well ? 'quiet' : 'wrong'">{{ line.says }}</dd>
      </template>
    </dl>
  </section>
</template>

<style scoped>
.parts {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 6px 24px;
  margin: 12px 0 0;
}
dd {
  margin: 0;
}
.wrong {
  font-weight: 620;
}
</style>
