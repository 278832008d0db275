<script setup lang="ts">
import { reactive } from 'vue';
import type { NamedModel } from '@core/machine/loop-file/loopFile.js';

/** Cards, boards or sockets by model and revision; no revision means every one. */
const models = defineModel<readonly NamedModel[]>({ required: true });
const next = reactive({ model: '', revision: '' });
function add(): void {
  const [model, revision] = [next.model.trim(), next.revision.trim()];
  if (model === '') return;
  models.value = [...models.value, { model, ...(revision === '' ? {} : { revision }) }];
  Object.assign(next, { model: '', revision: '' });
}
const drop = (index: number): void => void (models.value = models.value.filter((_, at) => at !== index));
</script>

<template>
  <div>
    <ul class="plain-list">
      <li v-for="({ model, revision }, index) in models" :key="index" class="spread">
        <span
          >{{ model }} <span class="quiet">{{ revision ? `rev. ${revision}` : 'every revision' }}</span></span
        >
        <button type="button" class="quiet" :aria-label="`Take ${model} off the list`" @click="drop(index)">out</button>
      </li>
    </ul>
    <div class="add" @keydown.enter.prevent="add">
      <v-text-field v-model="next.model" label="Its list names" density="compact" hide-details maxlength="80" />
      <v-text-field v-model="next.revision" label="revision" density="compact" hide-details maxlength="80" />
      <v-btn size="small" variant="outlined" :disabled="next.model.trim() === ''" @click="add">Add</v-btn>
    </div>
  </div>
</template>

<style scoped>
.add {
  display: grid;
  grid-template-columns: 1.4fr 1fr auto;
  gap: 6px;
  align-items: center;
}
li button {
  min-height: 40px;
  min-width: 40px;
}
</style>
