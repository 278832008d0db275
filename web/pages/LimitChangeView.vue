<script setup lang="ts">
import type { LimitChangeRow } from '@core/workshop/coolants/answers.js';
import { computed } from 'vue';
import { get } from '../base/http/api.js';
import { usePage } from '../base/http/usePage.js';
import { useDates } from '../base/units/dates.js';
import { useSession } from '../workshop/people/sessionStore.js';

/** Whom to tell of a changed limit, on paper: to be ticked beside the telephone. */
const props = defineProps<{ id: string }>();
const dates = useDates();
const session = useSession();
const { data, problem } = usePage(
  (signal) => get<{ changes: LimitChangeRow[] }>(`/coolants/${props.id}/limit-changes`, signal),
  () => props.id,
);
const change = computed(() => data.value?.changes.find(({ canUndo }) => canUndo) ?? null);
const print = (): void => window.print();
</script>

<template>
  <main class="page">
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
    <p v-else-if="data && !change">No change of this limit stands. <router-link to="/store">The store</router-link></p>
    <template v-else-if="change">
      <header class="spread no-print">
        <h1>Whom to tell: {{ change.coolant }}</h1>
        <div class="row">
          <v-btn size="large" @click="print">Print</v-btn>
          <v-btn variant="text" size="large" to="/store">Back to the store</v-btn>
        </div>
      </header>
      <article class="paper">
        <h2>{{ change.coolant }}: dates that moved on {{ dates.day(change.at) }}</h2>
        <p>{{ session.account?.workshopName }}</p>
        <table>
          <thead>
            <tr>
              <th scope="col">Told</th>
              <th scope="col">Owner</th>
              <th scope="col">Number</th>
              <th scope="col">Machine</th>
              <th scope="col">Was due</th>
              <th scope="col">Is due</th>
            </tr>
          </thead>
          <tbody class="figures">
            <tr v-for="each in change.moved" :key="each.id">
              <td>{{ change.told.includes(each.id) ? '✓' : '☐' }}</td>
              <td>{{ each.ownerName }}</td>
              <td>{{ each.phone ?? each.email ?? '' }}</td>
              <td>{{ each.systemName }}</td>
              <td>{{ dates.day(each.before) }}</td>
              <td>
                <strong>{{ dates.day(each.dueOn) }}</strong>
              </td>
            </tr>
          </tbody>
        </table>
      </article>
    </template>
  </main>
</template>

<style scoped>
.paper {
  background: #fff;
  color: #111;
  border: 2px solid #111;
  padding: 24px 28px;
  margin-top: 14px;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  text-align: left;
  padding: 4px 10px 4px 0;
  border-top: 1px solid #bbb;
}
@media print {
  .paper {
    border: 0;
    padding: 0;
  }
}
</style>
