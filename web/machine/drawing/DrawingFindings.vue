<script setup lang="ts">
import { computed } from 'vue';
import { loopFindings } from '@core/machine/build-checks/loopFindings.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';

/** What speaks against the drawing as it stands, the worst first; a touch chooses the part it is about. */
const props = defineProps<{ loop: LoopFile }>();
const emit = defineEmits<{ choose: [id: string] }>();
const findings = computed(() => loopFindings(props.loop).filter(({ weight }) => weight !== 'note'));
</script>

<template>
  <section v-if="findings.length" aria-label="What speaks against it">
    <h3>{{ findings.length === 1 ? 'One thing speaks against it' : `${findings.length} things speak against it` }}</h3>
    <ul class="plain-list">
      <li v-for="(finding, index) in findings" :key="index" :class="finding.weight">
        <component
          :is="finding.part === null ? 'span' : 'button'"
          :type="finding.part === null ? undefined : 'button'"
          @click="finding.part !== null && emit('choose', finding.part)"
          >{{ finding.text }}</component
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
li {
  padding: 4px 0 4px 10px;
  border-left: 4px solid var(--line);
  margin-top: 4px;
}
.stop {
  border-left-color: var(--danger);
}
button {
  text-align: left;
  min-height: 32px;
}
</style>
