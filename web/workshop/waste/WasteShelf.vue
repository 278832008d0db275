<script setup lang="ts">
import { sayWord } from '@core/base/words/say.js';
import type { WasteContainer } from '@core/workshop/store/answers.js';
import { computed, reactive, ref } from 'vue';
import { WASTE_KINDS, type WasteKind } from '@core/workshop/store/schema.js';
import { formatMl } from '@core/base/units/display.js';
import { downloadTable, fileName } from '../../base/files/download.js';
import { call, get } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { useDates } from '../../base/units/dates.js';
import { useSession } from '../people/sessionStore.js';
import NumberField from '../../base/units/NumberField.vue';
import DayField from '../../base/units/DayField.vue';

/** Waste containers as they stand, each with its level; what went in from which job; the paper of the hand-over. */
const props = defineProps<{ today: string; containers: readonly WasteContainer[] }>();
const emit = defineEmits<{ changed: [] }>();
const submit = useSubmit();
const handing = useSubmit();
const dates = useDates();
const session = useSession();
const adding = ref(false);
const at = ref<string | null>(null);
const entries = ref<{ id: string; at: string; volumeMl: number; note: string; systemName: string | null; systemId: string | null }[]>([]);
const form = reactive({ label: '', kind: 'used-coolant' as WasteKind, capacityMl: 20_000 as number | null });
const pouring = useSubmit();
const poured = reactive({ volumeMl: null as number | null, note: '' });
const paper = reactive({ on: props.today, to: '', carrier: '', wasteCode: '', documentNumber: '' });
const kinds = Object.entries(WASTE_KINDS).map(([value, title]) => ({ value, title: sayWord(title) }));

const standing = computed(() => props.containers.filter(({ state }) => state === 'open'));
const gone = computed(() => props.containers.filter(({ state }) => state !== 'open'));
const chosen = computed(() => props.containers.find(({ id }) => id === at.value) ?? null);

async function look(id: string): Promise<void> {
  at.value = at.value === id ? null : id;
  entries.value = [];
  if (at.value) entries.value = (await get<{ entries: typeof entries.value }>(`/waste/${id}`).catch(() => ({ entries: [] }))).entries;
}
async function add(): Promise<void> {
  if (!(await submit.run((idempotencyKey) => call('POST', '/waste', { body: { ...form }, idempotencyKey })))) return;
  adding.value = false;
  form.label = '';
  emit('changed');
}
const download = (): Promise<void> =>
  downloadTable(
    entries.value.map(({ at: on, volumeMl, systemName, note }) => ({
      at: on,
      volume_ml: Math.round(volumeMl),
      system: systemName ?? '',
      note,
    })),
    fileName(`waste-${chosen.value?.label ?? ''}`, 'waste'),
  );
async function pourIn(): Promise<void> {
  const can = at.value;
  const done = await pouring.run((idempotencyKey) =>
    call('POST', `/waste/${can}/entries`, { body: { volumeMl: poured.volumeMl, note: poured.note.trim() }, idempotencyKey }),
  );
  if (!done || can === null) return;
  Object.assign(poured, { volumeMl: null, note: '' });
  emit('changed');
  at.value = null;
  await look(can);
}
async function handOver(): Promise<void> {
  const body = { ...paper, version: chosen.value?.version };
  if (!(await handing.run(() => call('PUT', `/waste/${at.value}/hand-over`, { body })))) return;
  at.value = null;
  emit('changed');
}
/** share from which a container is handed over soon */
const FULL = 0.85;
</script>

<template>
  <section>
    <header class="spread">
      <h2>Waste</h2>
      <v-btn variant="outlined" @click="adding = !adding">{{ adding ? 'Close' : 'New container' }}</v-btn>
    </header>
    <form v-if="adding" class="form" novalidate @submit.prevent="add">
      <v-text-field v-model="form.label" label="Label on it" :error-messages="submit.at('label')" />
      <v-select v-model="form.kind" :items="kinds" label="For" />
      <NumberField v-model="form.capacityMl" label="Holds" unit="mL" :errors="submit.at('capacityMl')" />
      <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
      <v-btn type="submit" :loading="submit.busy.value">Put it up</v-btn>
    </form>
    <p v-if="standing.length === 0" class="quiet">
      No container stands here. Put one up and label it: what comes out of a loop is poured into it, job by job.
    </p>
    <ul class="plain-list cans">
      <li v-for="can in standing" :key="can.id">
        <button type="button" :aria-expanded="at === can.id" @click="look(can.id)">
          <span class="can" aria-hidden="true"><i :style="{ height: `${Math.min(100, (100 * can.levelMl) / can.capacityMl)}%` }" /></span>
          <strong>{{ can.label }}</strong>
          <span class="quiet">{{ WASTE_KINDS[can.kind] }}</span>
          <span class="figures">{{ formatMl(can.levelMl) }} of {{ formatMl(can.capacityMl) }}</span>
          <strong v-if="can.levelMl >= FULL * can.capacityMl">hand it over</strong>
        </button>
      </li>
    </ul>
    <div v-if="chosen" class="inside">
      <header class="spread">
        <h3>What went into {{ chosen.label }}</h3>
        <v-btn v-if="entries.length" variant="text" @click="download">As a table</v-btn>
      </header>
      <p v-if="entries.length === 0" class="quiet">Nothing yet.</p>
      <ul class="plain-list figures">
        <li v-for="entry in entries" :key="entry.id">
          {{ formatMl(entry.volumeMl) }}
          <router-link v-if="entry.systemId" :to="`/systems/${entry.systemId}`">{{ entry.systemName }}</router-link> {{ entry.note }}
          <span class="quiet">{{ dates.day(entry.at) }}</span>
        </li>
      </ul>
      <form v-if="chosen.state === 'open'" class="row by-hand" novalidate @submit.prevent="pourIn">
        <NumberField v-model="poured.volumeMl" label="Volume" unit="mL" :errors="pouring.at('volumeMl')" />
        <v-text-field v-model="poured.note" label="From what" :error-messages="pouring.at('note')" />
        <v-btn type="submit" variant="outlined" :loading="pouring.busy.value">Poured in</v-btn>
      </form>
      <p v-if="pouring.problem.value" role="alert" class="danger">{{ pouring.problem.value }}</p>
      <form v-if="chosen.state === 'open'" class="form" novalidate @submit.prevent="handOver">
        <DayField v-model="paper.on" label="On" :max="today" :errors="handing.at('on')" />
        <v-text-field v-model="paper.to" label="Collection point" :error-messages="handing.at('to')" />
        <v-text-field v-model="paper.carrier" label="Driven there by, if not by us" :error-messages="handing.at('carrier')" />
        <v-text-field v-model="paper.wasteCode" label="Waste code, by their list" :error-messages="handing.at('wasteCode')" />
        <v-text-field v-model="paper.documentNumber" label="Paper number" :error-messages="handing.at('documentNumber')" />
        <p v-if="handing.problem.value" role="alert" class="danger">{{ handing.problem.value }}</p>
        <v-btn type="submit" :loading="handing.busy.value" :disabled="!session.may('lead')">Handed over</v-btn>
        <v-btn variant="outlined" :to="`/waste/${chosen.id}/paper`">Its paper</v-btn>
        <p v-if="!session.may('lead')" class="quiet">The lead hands it over.</p>
      </form>
    </div>
    <ul v-if="gone.length" class="plain-list quiet figures">
      <li v-for="can in gone" :key="can.id">
        {{ can.label }}: {{ formatMl(can.levelMl) }} to {{ can.handedTo }} on {{ dates.day(can.handedOn ?? today) }},
        <router-link :to="`/waste/${can.id}/paper`">paper {{ can.documentNumber }}</router-link>
      </li>
    </ul>
    <p class="quiet">No legal statement: local rules and the safety data sheet come first. Never down the drain.</p>
  </section>
</template>

<style scoped>
p {
  margin: 6px 0 0;
}
.cans {
  display: flex;
  flex-wrap: wrap;
  gap: 22px;
  padding: 12px 0;
}
.cans button {
  display: grid;
  justify-items: start;
  text-align: left;
}
.can {
  position: relative;
  width: 74px;
  height: 92px;
  border: 3px solid var(--ink);
  border-radius: 3px 16px 3px 3px;
  margin-bottom: 6px;
  overflow: hidden;
}
.can i {
  position: absolute;
  inset: auto 0 0;
  /* waste is dotted */
  background: radial-gradient(circle, var(--ink-soft) 1.5px, transparent 1.8px) 0 0 / 7px 7px;
  border-top: 2px solid var(--ink);
}
.form {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 4px 12px;
  padding-top: 10px;
}
.by-hand > * {
  flex: 1 1 150px;
}
.by-hand .v-btn {
  flex: 0 0 auto;
  height: 56px;
}
.inside {
  border-left: 4px solid var(--ink);
  padding-left: 14px;
}
</style>
