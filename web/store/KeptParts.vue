<script setup lang="ts">
import { reactive, ref } from 'vue';
import { KEPT_KINDS, type KeptKind } from '@core/store/schema.js';
import { sayDue } from '@core/systems/attention.js';
import { formatMl } from '@core/units/display.js';
import { call } from '../http/api.js';
import { useSubmit } from '../http/useSubmit.js';
import type { KeptRow } from './types.js';

/** Parts that were taken out, lent parts and loan machines: where each is, and until when. */
defineProps<{ parts: readonly KeptRow[]; today: string }>();
const emit = defineEmits<{ changed: [] }>();
const submit = useSubmit();
const leaving = useSubmit();
const adding = ref(false);
const at = ref<string | null>(null);
const where = ref('');
const blank = () => ({
  name: '',
  kind: 'loan-machine' as KeptKind,
  systemId: null,
  place: '',
  condition: '',
  heldMl: 0,
  lentTo: '',
  untilDay: '',
});
const form = reactive(blank());
const kinds = Object.entries(KEPT_KINDS).map(([value, title]) => ({ value, title }));

async function add(): Promise<void> {
  const body = { ...form, untilDay: form.untilDay || null };
  if (!(await submit.run((idempotencyKey) => call('POST', '/kept-parts', { body, idempotencyKey })))) return;
  Object.assign(form, blank());
  adding.value = false;
  emit('changed');
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
      <v-text-field v-model="form.name" label="What" :error-messages="submit.at('name')" />
      <v-select v-model="form.kind" :items="kinds" label="Is" />
      <v-text-field v-model="form.place" label="Place" />
      <v-text-field v-model="form.condition" label="Condition" />
      <v-text-field v-model="form.lentTo" label="Who has it" :error-messages="submit.at('lentTo')" />
      <v-text-field v-model="form.untilDay" type="date" label="Decide or back by" :error-messages="submit.at('untilDay')" />
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
          ><template v-if="part.heldMl > 0">, capped with {{ formatMl(part.heldMl) }} inside</template>
          <button type="button" class="link" @click="at = at === part.id ? null : part.id">it is gone</button>
        </p>
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
