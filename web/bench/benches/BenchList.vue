<script setup lang="ts">
import { ref } from 'vue';
import type { Shop } from '@core/workshop/people/answers.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import BenchDevices from '../instruments/BenchDevices.vue';
import { useBenches } from './benchStore.js';

/** The benches by name, and what speaks on each. */
type Bench = Shop['benches'][number];
const props = defineProps<{ benches: readonly Bench[]; isLead: boolean }>();
const emit = defineEmits<{ changed: [benches: Bench[]] }>();
const benchStore = useBenches();
const adding = useSubmit();
const naming = useSubmit();
const name = ref('');
const renamed = ref<Bench | null>(null);
const devices = ref<InstanceType<typeof BenchDevices> | null>(null);

async function told(benches: Bench[]): Promise<void> {
  emit('changed', benches);
  await Promise.all([benchStore.refresh(), devices.value?.load()]);
}
async function add(): Promise<void> {
  const made = await adding.run((idempotencyKey) => call<Bench>('POST', '/benches', { body: { name: name.value.trim() }, idempotencyKey }));
  if (!made) return;
  name.value = '';
  await told([...props.benches, made]);
}
async function rename(): Promise<void> {
  const own = renamed.value;
  if (!own) return;
  const after = await naming.run(() => call<Bench>('PUT', `/benches/${own.id}`, { body: { name: own.name.trim() } }));
  if (!after) return;
  renamed.value = null;
  await told(props.benches.map((each) => (each.id === after.id ? after : each)));
}
</script>

<template>
  <section>
    <h2>Benches and their instruments</h2>
    <ul v-if="isLead" class="plain-list names">
      <li v-for="bench in benches" :key="bench.id">
        <form v-if="renamed?.id === bench.id" class="row" novalidate @submit.prevent="rename">
          <v-text-field v-model="renamed.name" label="Its name" autofocus :error-messages="naming.problem.value ?? []" />
          <v-btn type="submit" :loading="naming.busy.value">Rename it</v-btn>
        </form>
        <template v-else>
          <strong>{{ bench.name }}</strong>
          <button type="button" class="link" :aria-label="`Rename ${bench.name}`" @click="renamed = { ...bench }">rename</button>
        </template>
      </li>
    </ul>
    <BenchDevices ref="devices" :is-lead="isLead" />
    <form v-if="isLead" class="row mt-2" novalidate @submit.prevent="add">
      <v-text-field v-model="name" label="Another bench" :error-messages="adding.problem.value ?? []" />
      <v-btn type="submit" size="large" :disabled="name.trim() === ''" :loading="adding.busy.value">Add</v-btn>
    </form>
  </section>
</template>

<style scoped>
.names li {
  display: flex;
  gap: 16px;
  align-items: center;
  min-height: 44px;
}
.names form {
  flex: 1;
}
.link {
  text-decoration: underline;
  min-height: 32px;
}
</style>
