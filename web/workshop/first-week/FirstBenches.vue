<script setup lang="ts">
import type { Shop } from '@core/workshop/people/answers.js';
import { onMounted, ref } from 'vue';
import { call, get } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';

/** What the benches are called: the one that is there, and those beside it. */
const emit = defineEmits<{ done: [] }>();
const submit = useSubmit();
/** null: not read yet; nothing is typed before, so that nothing typed is lost */
const benches = ref<Shop['benches'] | null>(null);
const names = ref<string[]>([]);
onMounted(async () => {
  benches.value = (await get<Shop>('/workshop').catch(() => ({ benches: [] as Shop['benches'] }))).benches;
  names.value = [...benches.value.map(({ name }) => name), '', ''];
});
async function save(): Promise<void> {
  const saved = await submit.run(async () => {
    for (const [index, name] of names.value.map((each) => each.trim()).entries()) {
      const known = benches.value?.[index];
      if (name === '' || known?.name === name) continue;
      await (known ? call('PUT', `/benches/${known.id}`, { body: { name } }) : call('POST', '/benches', { body: { name }, idempotencyKey: crypto.randomUUID() })); // prettier-ignore
    }
    return true;
  });
  if (saved) emit('done');
}
</script>

<template>
  <form v-if="benches" class="row" novalidate @submit.prevent="save">
    <v-text-field
      v-for="(_, index) in names"
      :key="index"
      v-model="names[index]"
      :label="index === 0 ? 'The first bench' : 'Another bench'"
    />
    <v-btn type="submit" size="large" :loading="submit.busy.value">These are our benches</v-btn>
    <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
  </form>
</template>

<style scoped>
.row > .v-input {
  flex: 1 1 170px;
}
</style>
