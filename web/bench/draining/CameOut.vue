<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { unitName } from '@core/base/units/shown.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { computed, onScopeDispose, ref, watch } from 'vue';
import { formatMl } from '@core/base/units/display.js';
import NumberField from '../../base/units/NumberField.vue';
import { useOpenContainers } from '../../workshop/waste/containers.js';

/** What ran into the jug, and the container it was poured into. */
const props = defineProps<{ step: string; expectedMl?: number | null; rinsing?: boolean }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const { containers, load } = useOpenContainers();
const volume = ref<number | null>(null);
const wasteId = ref<string | null>(null);
const losing = ref(false);
const lostText = ref('');
const problem = ref<string | null>(null);

const wanted = computed(() => (props.rinsing ? ['rinse-water', 'mixed', 'used-coolant'] : ['used-coolant', 'mixed']));
const options = computed(() =>
  containers.value.map(({ id, label, capacityMl, levelMl }) => ({
    value: id,
    title: say('{label}, {formatMl} free', { label, formatMl: formatMl(Math.max(0, capacityMl - levelMl)) }),
  })),
);
/** the first that suits and takes what should come; one that is full is not proposed again */
watch([containers, () => props.expectedMl], ([all]) => {
  const suits = wanted.value.flatMap((kind) => all.filter((each) => each.kind === kind));
  const takes = ({ capacityMl, levelMl }: (typeof all)[number]): boolean => capacityMl - levelMl >= (props.expectedMl ?? 0);
  const chosen = all.find(({ id }) => id === wasteId.value);
  if (!chosen || !takes(chosen)) wasteId.value = (suits.find(takes) ?? suits[0])?.id ?? null;
});

/** ms until the entry has reached the container's level */
const RELOAD_MS = 800;
let later: number | undefined;
onScopeDispose(() => window.clearTimeout(later));

function enter(): void {
  if (volume.value === null || volume.value <= 0) {
    problem.value = say('Enter what stands in the jug, in {unitName}.', { unitName: unitName('mL') });
    return;
  }
  const room = containers.value.find(({ id }) => id === wasteId.value);
  if (!losing.value && room && room.levelMl + volume.value > room.capacityMl) {
    problem.value = say('{label} has room for {formatMl} only; choose another container.', {
      label: room.label,
      formatMl: formatMl(Math.max(0, room.capacityMl - room.levelMl)),
    });
    return;
  }
  problem.value = null;
  if (losing.value) emit('send', { type: 'lost', step: props.step, volumeMl: volume.value, text: lostText.value.trim() || 'on towels' });
  else emit('send', { type: 'drained', step: props.step, volumeMl: volume.value, how: 'jug', wasteId: wasteId.value });
  volume.value = null;
  losing.value = false;
  window.clearTimeout(later);
  later = window.setTimeout(() => void load(), RELOAD_MS);
}
</script>

<template>
  <form class="out" novalidate @submit.prevent="enter">
    <NumberField
      v-model="volume"
      large
      :label="losing ? 'Lost, about' : 'In the jug'"
      unit="mL"
      :hint="expectedMl ? `about ${formatMl(Math.round(expectedMl / 5) * 5)} should come` : ''"
      @enter="enter"
    />
    <v-text-field v-if="losing" v-model="lostText" label="Where it went" placeholder="on towels" />
    <v-select v-else v-model="wasteId" :items="options" label="Poured into" clearable no-data-text="No container yet; see Store" />
    <v-btn type="submit" size="x-large">{{ losing ? 'Lost' : 'Came out' }}</v-btn>
    <button type="button" class="link" @click="losing = !losing">{{ losing ? 'It is in the jug' : 'Some was lost' }}</button>
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
  </form>
</template>

<style scoped>
.out {
  display: grid;
  grid-template-columns: minmax(150px, 1fr) minmax(180px, 1.2fr) auto auto;
  gap: 12px;
  align-items: start;
}
.out .v-btn {
  height: 64px;
}
.link {
  text-decoration: underline;
  min-height: 64px;
  text-align: left;
}
.out p {
  grid-column: 1 / -1;
  margin: 0;
}
@media (max-width: 900px) {
  .out {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
