<script setup lang="ts">
import type { HistoryEntry } from '@core/workshop/machines/answers.js';
import { useDates } from '../../base/units/dates.js';

/** What happened to a system, newest first. A fill shows its liquid. */
defineProps<{ entries: readonly HistoryEntry[] }>();
const dates = useDates();
</script>

<template>
  <ol class="plain-list history">
    <li v-for="entry in entries" :key="entry.id" :class="entry.kind">
      <span class="mark" :style="entry.colour ? { background: entry.colour } : {}" />
      <div>
        <p class="spread head">
          <strong>{{ entry.title }}</strong><span class="quiet figures">{{ dates.day(entry.at) }}</span>
        </p>
        <p v-if="entry.text">{{ entry.text }}</p>
        <a v-if="entry.photoId" :href="`/api/photos/${entry.photoId}`" target="_blank"
          ><img :src="`/api/photos/${entry.photoId}`" :alt="entry.text || 'Photograph of the machine'" loading="lazy"
        /></a>
        <p class="quiet">
          <template v-if="entry.by">{{ entry.by }}</template><template v-if="entry.by && entry.runId">, </template
          ><template v-if="entry.runId"
            ><router-link :to="entry.open ? `/runs/${entry.runId}` : `/runs/${entry.runId}/record`">open the record</router-link></template
          >
        </p>
      </div>
    </li>
  </ol>
</template>

<style scoped>
.history {
  position: relative;
}
.history::before {
  content: '';
  position: absolute;
  left: 7px;
  top: 10px;
  bottom: 10px;
  border-left: 2px solid var(--line);
}
li {
  display: grid;
  grid-template-columns: 16px 1fr;
  gap: 16px;
  padding-bottom: 16px;
  position: relative;
}
p {
  margin: 0;
}
.mark {
  width: 16px;
  height: 16px;
  margin-top: 3px;
  border: 2px solid var(--ink);
  background: var(--sheet);
  border-radius: 50%;
}
.revision .mark,
.check .mark,
.photo .mark,
.reading .mark,
.message .mark {
  width: 10px;
  height: 10px;
  margin: 6px 3px 0;
}
.finding .mark {
  border-radius: 0;
  transform: rotate(45deg) scale(0.75);
}
img {
  width: 200px;
  max-height: 150px;
  object-fit: cover;
  background: var(--well);
}
.head {
  flex-wrap: nowrap;
}
.head span {
  white-space: nowrap;
}
</style>
