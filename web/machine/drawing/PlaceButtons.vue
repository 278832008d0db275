<script setup lang="ts">
import { PLACES, type Place } from '@core/machine/catalogue/places.js';

/** One press lays a part out in that place. */
defineProps<{
  label: string;
  places: readonly Place[];
  /** places where it does not fit, each with the reason */
  against?: Partial<Readonly<Record<Place, string>>>;
}>();
const emit = defineEmits<{ pick: [place: Place] }>();
</script>

<template>
  <span class="places">
    <v-btn
      v-for="place in places"
      :key="place"
      size="small"
      variant="outlined"
      :class="{ against: against?.[place] }"
      :title="against?.[place]"
      :aria-label="`Add ${label} ${PLACES[place]}${against?.[place] ? `: ${against[place]}` : ''}`"
      @click="emit('pick', place)"
      >{{ PLACES[place] }}</v-btn
    >
  </span>
</template>

<style scoped>
.places {
  display: flex;
  gap: 5px;
  flex-wrap: wrap;
}
.against {
  text-decoration: line-through;
  border-style: dotted;
}
</style>
