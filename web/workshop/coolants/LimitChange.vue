<script setup lang="ts">
import type { Moved, Product } from '@core/workshop/coolants/answers.js';
import { ref } from 'vue';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { useDates } from '../../base/units/dates.js';
import NumberField from '../../base/units/NumberField.vue';

/** A maker's limit that came out after loops were filled: every machine that holds the product gets its date anew. */
const props = defineProps<{ product: Product }>();
const emit = defineEmits<{ changed: [] }>();
const submit = useSubmit();
const dates = useDates();
const months = ref<number | null>(props.product.sheetLifeMonths);
const hours = ref<number | null>(props.product.sheetLifeHours);
const moved = ref<readonly Moved[] | null>(null);

async function save(): Promise<void> {
  const done = await submit.run(() =>
    call<{ moved: Moved[] }>('PUT', `/coolants/${props.product.id}/limit`, {
      body: { version: props.product.version, sheetLifeMonths: months.value, sheetLifeHours: hours.value },
    }),
  );
  if (!done) return;
  moved.value = done.moved;
  emit('changed');
}
const reach = ({ channel, phone, email }: Moved): string =>
  (channel === 'email' ? email : phone) ?? phone ?? email ?? 'no number on record';
</script>

<template>
  <div class="limit">
    <form class="row" novalidate @submit.prevent="save">
      <NumberField v-model="months" label="Life by its sheet" unit="months" :errors="submit.at('sheetLifeMonths')" />
      <NumberField v-model="hours" label="Or running" unit="h" :errors="submit.at('sheetLifeHours')" />
      <v-btn type="submit" :loading="submit.busy.value">Date all anew</v-btn>
      <span class="quiet">Empty: the limit of its class counts.</span>
    </form>
    <p v-if="submit.stale.value" role="alert" class="danger">Somebody changed this limit meanwhile; close this and look again.</p>
    <p v-else-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
    <div v-if="moved" aria-live="polite">
      <p v-if="moved.length === 0">No date moves: another clock comes first everywhere.</p>
      <template v-else>
        <p>
          <strong>{{ moved.length }} {{ moved.length === 1 ? 'date moves' : 'dates move' }}.</strong> Whom to tell, the earliest first:
        </p>
        <ul class="plain-list calls">
          <li v-for="each in moved" :key="each.id">
            <router-link :to="`/systems/${each.systemId}`">{{ each.systemName }}</router-link>
            <span>{{ each.ownerName }}, {{ reach(each) }}</span>
            <span class="figures"
              ><s class="quiet">{{ dates.day(each.before) }}</s> {{ dates.day(each.dueOn) }}</span
            >
          </li>
        </ul>
      </template>
    </div>
  </div>
</template>

<style scoped>
.limit {
  display: grid;
  gap: 8px;
  padding: 8px 0;
}
p {
  margin: 0;
}
.row > .v-input {
  max-width: 200px;
}
.calls {
  max-height: 320px;
  overflow: auto;
}
.calls li {
  display: grid;
  grid-template-columns: 1fr 1.4fr auto;
  gap: 12px;
  padding: 6px 0;
  border-top: 1px solid var(--line-soft);
}
.calls .figures {
  white-space: nowrap;
}
</style>
