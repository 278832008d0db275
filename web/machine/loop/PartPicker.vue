<script setup lang="ts">
import { computed, ref } from 'vue';
import { CATALOGUE, type CataloguePart } from '@core/machine/catalogue/parts.js';
import { PLACES, type Place } from '@core/machine/catalogue/places.js';
import { useLearned } from '../learning/learnedStore.js';

/** The catalogue of generic parts; one press adds the part behind the chosen one, in its usual place. */
defineProps<{ after: string | null; free?: boolean }>();
const emit = defineEmits<{ add: [part: CataloguePart, place: Place] }>();
const learned = useLearned();
const group = ref<CataloguePart['group']>('reservoirs');
const groups: { key: CataloguePart['group']; label: string }[] = [
  { key: 'reservoirs', label: 'Reservoirs' },
  { key: 'pumps', label: 'Pumps' },
  { key: 'blocks', label: 'Blocks' },
  { key: 'radiators', label: 'Radiators' },
  { key: 'inline', label: 'In line' },
];
const shown = computed(() => CATALOGUE.filter((part) => part.group === group.value));
</script>

<template>
  <section class="picker" aria-label="Add a part">
    <p class="quiet mb-2">{{ free ? 'Add in its usual place, then draw its tubes' : `Add ${after ? `after ${after}` : 'at the end'}` }}</p>
    <div class="groups" role="group" aria-label="Kind of part">
      <button v-for="each in groups" :key="each.key" type="button" :aria-pressed="group === each.key" @click="group = each.key">
        {{ each.label }}
      </button>
    </div>
    <ul class="plain-list">
      <li v-for="part in shown" :key="part.key">
        <span
          >{{ part.label }}
          <span v-if="learned.find(part.key)" class="quiet figures"
            >{{ Math.round(learned.find(part.key)?.learned.volumeMl ?? 0) }} mL, learned from
            {{ learned.find(part.key)?.fills }} fills</span
          >
          <span v-else class="quiet figures">about {{ part.volumeMl }} mL</span></span
        >
        <span class="places">
          <v-btn
            v-for="place in part.places"
            :key="place"
            size="small"
            variant="outlined"
            :aria-label="`Add ${part.label} ${PLACES[place]}`"
            @click="emit('add', part, place)"
            >{{ PLACES[place] }}</v-btn
          >
        </span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.groups {
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
  border-bottom: 1px solid var(--line);
}
.groups button {
  padding: 8px 12px;
  border-bottom: 3px solid transparent;
  color: var(--ink-soft);
}
.groups button[aria-pressed='true'] {
  border-color: var(--ink);
  color: var(--ink);
  font-weight: 620;
}
li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
  flex-wrap: wrap;
  padding: 7px 0;
  border-bottom: 1px solid var(--line-soft);
}
.places {
  display: flex;
  gap: 5px;
  flex-wrap: wrap;
}
</style>
