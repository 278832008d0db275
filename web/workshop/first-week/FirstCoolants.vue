<script setup lang="ts">
import { COOLANT_CLASS_KEYS, COOLANT_CLASSES, type CoolantClass } from '@core/machine/liquids/classes.js';
import { capital, say, sayWord } from '@core/base/words/say.js';
import { reactive } from 'vue';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { useCoolants } from '../coolants/coolantStore.js';

/** Classes with their usual lives: a name on the bottle makes one a coolant of this workshop. */
const emit = defineEmits<{ done: [] }>();
const submit = useSubmit();
const coolants = useCoolants();
const COLOURS: Readonly<Record<CoolantClass, string>> = { show: '#8d5fb0', opaque: '#d8d2c2', clear: '#7fb8c9', biocide: '#a9cbd6' };
const rows = reactive(COOLANT_CLASS_KEYS.map((key) => ({ key, name: '', colour: COLOURS[key] })));
const life = (key: CoolantClass): string => {
  const { baseLifeMonths, baseLifeRunningHours } = COOLANT_CLASSES[key];
  return baseLifeRunningHours === null
    ? say('{baseLifeMonths} months', { baseLifeMonths })
    : say('{baseLifeRunningHours} running hours', { baseLifeRunningHours });
};
async function save(): Promise<void> {
  const saved = await submit.run(async () => {
    for (const { key, name, colour } of rows.filter((row) => row.name.trim() !== '')) {
      const body = {
        name: name.trim(),
        coolantClass: key,
        colour,
        form: 'ready-mix',
        targetFraction: null,
        bottleMl: 1000,
        sheetLifeMonths: null,
      };
      await call('POST', '/coolants', { body, idempotencyKey: crypto.randomUUID() });
    }
    await coolants.load();
    return true;
  });
  if (saved) emit('done');
}
</script>

<template>
  <form class="coolants" novalidate @submit.prevent="save">
    <div v-for="row in rows" :key="row.key" class="one">
      <input v-model="row.colour" type="color" :aria-label="`Colour of the ${COOLANT_CLASSES[row.key].label}`" />
      <v-text-field v-model="row.name" :label="`${capital(sayWord(COOLANT_CLASSES[row.key].label))}: name on the bottle`" hide-details />
      <span class="figures">{{ life(row.key) }}</span>
    </div>
    <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
    <v-btn type="submit" size="large" :loading="submit.busy.value" :disabled="rows.every(({ name }) => name.trim() === '')"
      >Onto the shelf</v-btn
    >
  </form>
</template>

<style scoped>
.coolants {
  display: grid;
  gap: 8px;
  justify-items: start;
}
.one {
  display: grid;
  grid-template-columns: 52px 1fr 130px;
  gap: 12px;
  align-items: center;
  width: 100%;
}
input[type='color'] {
  width: 52px;
  height: 44px;
}
</style>
