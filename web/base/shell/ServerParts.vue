<script setup lang="ts">
import { partLines } from '@core/edge/words/health.js';
import type { ServersAnswer } from '@core/base/health/servers.js';
import { serverWords } from '@core/edge/words/health.js';
import { computed, onMounted, ref } from 'vue';
import { get } from '../http/api.js';
import { useServerHealth } from './serverHealth.js';

/** What the server stands on, and what of it needs somebody. */
const parts = useServerHealth();
const answer = ref<ServersAnswer | null>(null);
onMounted(async () => {
  // who may not know gets none; a server that does not answer is told above
  answer.value = await get<ServersAnswer>('/servers').catch(() => null);
});
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
    <ul v-if="answer && answer.servers.length > 1" class="plain-list servers" aria-label="Servers on this database">
      <li v-for="server in answer.servers" :key="server.name" :class="{ wrong: server.isSilent }">
        {{ serverWords(server, answer.here) }}
      </li>
    </ul>
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
.servers {
  margin-top: 12px;
}
.wrong {
  font-weight: 620;
}
</style>
