<script setup lang="ts">
import type { LoopOfSystem, SystemRow } from '@core/workshop/machines/answers.js';
import { hasUnit } from '@core/physics/filling/unitAlone.js';
import { wasFilled } from '@core/physics/live-book/insideNow.js';
import { computed } from 'vue';
import { useSession } from '../people/sessionStore.js';

/** What can be done with one loop of a machine next. */
const props = defineProps<{
  loop: LoopOfSystem;
  system: Pick<SystemRow, 'id' | 'state'>;
  /** job of a build that waits for its bench */
  buildId: string | null;
}>();
const emit = defineEmits<{ start: []; alone: []; 'came-filled': [] }>();
const session = useSession();
const run = computed(() => props.loop.runs.find(({ state }) => state === 'active') ?? null);
const isRetired = computed(() => props.system.state === 'retired');
/** never filled, and on no bench */
const waits = computed(() => props.loop.inside !== null && !wasFilled(props.loop.inside) && run.value === null);
const mayTestUnit = computed(
  () => waits.value && !isRetired.value && session.may('bench') && props.loop.revision !== null && hasUnit(props.loop.revision.file),
);
</script>

<template>
  <div class="row mt-3 no-print">
    <v-btn v-if="run" size="large" :to="`/runs/${run.id}`">Go to the bench</v-btn>
    <v-btn v-else-if="buildId && waits" size="large" :to="`/jobs/${buildId}`">Its build</v-btn>
    <v-btn
      v-else-if="!isRetired && session.may('bench')"
      :variant="system.state === 'planned' ? 'flat' : 'outlined'"
      size="large"
      @click="emit('start')"
      >{{ system.state === 'planned' ? 'Start commissioning' : 'Commission again' }}</v-btn
    >
    <v-btn
      v-if="waits && !buildId && !isRetired"
      variant="outlined"
      size="large"
      :to="`/systems/${system.id}/jobs/new?kind=commissioning&loop=${loop.id}`"
      >Book its build</v-btn
    >
    <v-btn v-if="mayTestUnit" variant="outlined" size="large" @click="emit('alone')">Test its unit first</v-btn>
    <v-btn v-if="waits" variant="outlined" size="large" @click="emit('came-filled')">It came filled</v-btn>
    <v-btn variant="outlined" size="large" :to="`/loops/${loop.id}`">Open the loop</v-btn>
    <v-btn variant="text" size="large" :to="`/loops/${loop.id}?show=drain`">What drains</v-btn>
  </div>
</template>
