<script setup lang="ts">
import { formatMl } from '@core/base/units/display.js';
import { REVISION_KINDS } from '@core/machine/loop-file/revisionKinds.js';
import type { LoopAnswer } from '@core/workshop/machines/answers.js';
import { useDates } from '../../base/units/dates.js';

/** Every revision of a loop, the newest first; what is only wanted can be drawn on, and booked. */
defineProps<{ revisions: LoopAnswer['revisions']; bookAt: (number: number) => string }>();
const emit = defineEmits<{ draw: [number: number] }>();
const dates = useDates();
</script>

<template>
  <section>
    <h2>Revisions</h2>
    <ul class="plain-list quiet mt-2">
      <li v-for="revision in revisions" :key="revision.id" class="figures">
        {{ revision.number }} {{ REVISION_KINDS[revision.kind] }}, {{ dates.day(revision.at) }}, {{ revision.by }},
        {{ formatMl(revision.volumeMl) }}<template v-if="revision.reason">: {{ revision.reason }}</template>
        <span v-if="revision.kind === 'wanted'" class="wish">
          <button type="button" class="link" @click="emit('draw', revision.number)">Draw on</button>
          <router-link :to="bookAt(revision.number)">Book it</router-link>
        </span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.wish {
  display: flex;
  gap: 20px;
  align-items: center;
  min-height: 32px;
}
.link {
  text-decoration: underline;
  min-height: 32px;
}
</style>
