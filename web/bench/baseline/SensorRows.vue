<script setup lang="ts">
import { formatDegrees } from '@core/base/units/display.js';
import { say } from '@core/base/words/say.js';
import NumberField from '../../base/units/NumberField.vue';
import type { SensorFace } from './useBaselineForm.js';

/** What is read of each part under one set of conditions, its figure of before and the difference beside it. */
defineProps<{ faces: readonly SensorFace[] }>();
const emit = defineEmits<{ add: []; remove: [index: number] }>();
const SENSORS = ['processor package', 'hottest core', 'graphics chip', 'graphics memory'];
const beforeWords = ({ earlier }: SensorFace): string =>
  earlier === null
    ? ''
    : earlier.powerW === null
      ? say('before: {part} in a room of {room}', { part: formatDegrees(earlier.partC), room: formatDegrees(earlier.roomC) })
      : say('before: {part} in a room of {room}, {watts} W', { part: formatDegrees(earlier.partC), room: formatDegrees(earlier.roomC), watts: earlier.powerW }); // prettier-ignore
</script>

<template>
  <div class="rows">
    <div v-for="(face, index) in faces" :key="index" class="sensor" role="group" :aria-label="face.row.sensor">
      <v-combobox v-model="face.row.sensor" :items="SENSORS" label="Sensor" hide-details="auto" />
      <NumberField v-model="face.row.partC" label="Part" unit="°C" />
      <NumberField v-model="face.row.powerW" label="Power into that part" unit="W" />
      <button
        v-if="faces.length > 1"
        type="button"
        class="link"
        :aria-label="`Leave out ${face.row.sensor}`"
        @click="emit('remove', index)"
      >
        leave out
      </button>
      <p v-if="face.earlier" class="earlier" role="status">
        <span class="quiet">{{ beforeWords(face) }}</span>
        <strong class="figures">{{ face.soFar ?? 'the difference appears as you type' }}</strong>
        <span v-if="face.perWatt" class="quiet figures">{{ face.perWatt }}</span>
      </p>
    </div>
    <v-btn variant="text" @click="emit('add')">One more sensor</v-btn>
  </div>
</template>

<style scoped>
.rows {
  display: grid;
  gap: 10px;
  justify-items: start;
}
.sensor {
  display: grid;
  grid-template-columns: minmax(0, 1.4fr) minmax(0, 1fr) minmax(0, 1fr) auto;
  gap: 4px 12px;
  width: 100%;
  align-items: start;
}
.earlier {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  border-left: 5px solid var(--ink);
  padding: 2px 0 2px 12px;
  margin: 0;
}
.link {
  text-decoration: underline;
  min-height: 48px;
}
@media (max-width: 700px) {
  .sensor {
    grid-template-columns: 1fr 1fr;
  }
  .sensor > :first-child {
    grid-column: 1 / -1;
  }
}
</style>
