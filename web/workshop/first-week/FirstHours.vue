<script setup lang="ts">
import type { WorkshopBoard } from '@core/workshop/planning/workshopPlan.js';
import { call, get } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { USUAL_WEEK } from '../planning/usualWeek.js';

/** A usual week for everybody who has none; other hours stand under Workshop. */
const emit = defineEmits<{ done: [] }>();
const submit = useSubmit();
async function save(): Promise<void> {
  const saved = await submit.run(async () => {
    const { people, shifts } = await get<WorkshopBoard>('/plan');
    for (const { id, version } of people.filter((person) => !shifts.some(({ personId }) => personId === person.id)))
      await call('PUT', `/people/${id}/shifts`, { body: { shifts: USUAL_WEEK, version } });
    return true;
  });
  if (saved) emit('done');
}
</script>

<template>
  <div class="row">
    <v-btn size="large" :loading="submit.busy.value" @click="save">Everybody: Monday to Friday, 9:00 to 17:30</v-btn>
    <v-btn size="large" variant="outlined" to="/workshop/hours">Each their own</v-btn>
    <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
  </div>
</template>
