<script setup lang="ts">
import type { KeptRow } from '@core/workshop/store/answers.js';
import { ref } from 'vue';
import { addDays } from '@core/base/units/calendar.js';
import { KEPT_KINDS, WET_PART_DAYS } from '@core/workshop/store/schema.js';
import { sayDue } from '@core/workshop/due-dates/attention.js';
import { formatMl } from '@core/base/units/display.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import KeptFields, { type KeptForm } from './KeptFields.vue';

/** Parts that were taken out, lent parts and loan machines: where each is, and until when. */
defineProps<{ parts: readonly KeptRow[]; today: string }>();
const emit = defineEmits<{ changed: [] }>();
const submit = useSubmit();
const leaving = useSubmit();
const adding = ref(false);
const at = ref<string | null>(null);
const where = ref('');
const blank = (): KeptForm => ({
  name: '',
  kind: 'loan-machine',
  systemId: null,
  place: '',
  condition: '',
  heldMl: 0,
  lentTo: '',
  untilDay: '',
});
const form = ref<KeptForm>(blank());
/** the part that is being changed, as it was read */
const changing = ref<KeptRow | null>(null);
const change = ref<KeptForm>(blank());
const editing = useSubmit();

const bodyOf = (from: KeptForm) => ({
  ...from,
  heldMl: from.kind === 'removed' ? (from.heldMl ?? 0) : 0,
  lentTo: from.kind === 'removed' ? '' : from.lentTo,
  untilDay: from.untilDay || null,
});
function openChange(part: KeptRow): void {
  changing.value = changing.value?.id === part.id ? null : part;
  const { name, kind, systemId, place, condition, heldMl, lentTo, untilDay } = part;
  change.value = { name, kind, systemId, place, condition, heldMl, lentTo, untilDay: untilDay ?? '' };
  editing.clear();
}
async function saveChange(): Promise<void> {
  const part = changing.value;
  if (!part) return;
  const body = { ...bodyOf(change.value), version: part.version };
  if (!(await editing.run(() => call('PUT', `/kept-parts/${part.id}`, { body })))) return;
  changing.value = null;
  emit('changed');
}

async function add(): Promise<void> {
  const body = bodyOf(form.value);
  if (!(await submit.run((idempotencyKey) => call('POST', '/kept-parts', { body, idempotencyKey })))) return;
  form.value = blank();
  adding.value = false;
  emit('changed');
}
async function dry(part: KeptRow): Promise<void> {
  if (await leaving.run(() => call('PUT', `/kept-parts/${part.id}/dry`, { body: { version: part.version } }))) emit('changed');
}
async function gone(part: KeptRow): Promise<void> {
  if (!(await leaving.run(() => call('PUT', `/kept-parts/${part.id}/gone`, { body: { where: where.value, version: part.version } }))))
    return;
  where.value = '';
  at.value = null;
  emit('changed');
}
</script>

<template>
  <section>
    <header class="spread">
      <h2>Parts and loan machines</h2>
      <v-btn variant="outlined" @click="adding = !adding">{{ adding ? 'Close' : 'Add' }}</v-btn>
    </header>
    <form v-if="adding" class="form" novalidate @submit.prevent="add">
      <KeptFields v-model="form" :at="submit.at" />
      <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
      <v-btn type="submit" :loading="submit.busy.value">Add</v-btn>
    </form>
    <p v-if="parts.length === 0" class="quiet">
      Nothing lies here. A part that a job takes out comes here by itself, with its place and a day to decide what becomes of it.
    </p>
    <ul class="plain-list">
      <li v-for="part in parts" :key="part.id">
        <div class="spread">
          <strong>{{ part.name }}</strong>
          <span v-if="part.untilDay" class="figures" :class="{ late: part.untilDay < today }"
            >{{ part.kind === 'removed' ? 'decide' : 'back' }} {{ sayDue(part.untilDay, today) }}</span
          >
        </div>
        <p class="quiet">
          {{ KEPT_KINDS[part.kind] }}<template v-if="part.systemName"> of {{ part.systemName }}</template
          ><template v-if="part.lentTo">, {{ part.lentTo }} has it</template><template v-if="part.place">, {{ part.place }}</template
          ><template v-if="part.condition">, {{ part.condition }}</template
          ><template v-if="part.heldMl > 0">, capped with {{ formatMl(part.heldMl) }} inside</template
          ><span v-if="part.wetOn" class="figures" :class="{ late: addDays(part.wetOn, WET_PART_DAYS) < today }"
            >, wet inside, dry it {{ sayDue(addDays(part.wetOn, WET_PART_DAYS), today) }}
            <button type="button" class="link" :aria-label="`it is dry: ${part.name}`" @click="dry(part)">it is dry</button>,</span
          >
          <button type="button" class="link" :aria-label="`change: ${part.name}`" @click="openChange(part)">change</button>,
          <button type="button" class="link" :aria-label="`it is gone: ${part.name}`" @click="at = at === part.id ? null : part.id">
            it is gone
          </button>
        </p>
        <form v-if="changing?.id === part.id" class="form" novalidate @submit.prevent="saveChange">
          <KeptFields v-model="change" :at="editing.at" />
          <p v-if="editing.stale.value" role="alert" class="danger">
            Somebody changed it meanwhile.
            <button type="button" class="link" @click="((changing = null), emit('changed'))">Look again</button>
          </p>
          <p v-else-if="editing.problem.value" role="alert" class="danger">{{ editing.problem.value }}</p>
          <v-btn type="submit" :loading="editing.busy.value">Save</v-btn>
        </form>
        <form v-if="at === part.id" class="row" @submit.prevent="gone(part)">
          <v-text-field
            v-model="where"
            label="Where to"
            placeholder="scrap, back to its owner, into a machine"
            :error-messages="leaving.at('where')"
          />
          <v-btn type="submit" :loading="leaving.busy.value">Gone</v-btn>
        </form>
      </li>
    </ul>
    <p v-if="leaving.problem.value" role="alert" class="danger">{{ leaving.problem.value }}</p>
  </section>
</template>

<style scoped>
p {
  margin: 0;
}
li {
  padding: 8px 0;
  border-top: 1px solid var(--line-soft);
}
.late {
  font-weight: 700;
}
.link {
  text-decoration: underline;
}
.form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 12px;
  padding-top: 10px;
}
</style>
