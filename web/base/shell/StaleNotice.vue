<script setup lang="ts">
import { computed } from 'vue';

/** A save that came too late: what you typed beside what stands now, field by field. */
const props = defineProps<{ yours: unknown; theirs: unknown; labels: Record<string, string> }>();
const emit = defineEmits<{ takeTheirs: []; keepMine: [] }>();

function show(value: unknown): string {
  if (value === null || value === undefined || value === '') return 'empty';
  return typeof value === 'string' ? value : JSON.stringify(value);
}
const rows = computed(() => {
  const yours = props.yours as Record<string, unknown>;
  const theirs = props.theirs as Record<string, unknown>;
  return Object.entries(props.labels)
    .map(([key, label]) => ({ label, yours: show(yours[key]), theirs: show(theirs[key]) }))
    .filter((row) => row.yours !== row.theirs);
});
</script>

<template>
  <div class="stale" role="alert">
    <p><strong>Somebody saved this after you opened it.</strong> Nothing of yours was written. Compare:</p>
    <table>
      <thead>
        <tr>
          <th scope="col" />
          <th scope="col">yours</th>
          <th scope="col">saved by them</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.label">
          <th scope="row">{{ row.label }}</th>
          <td>{{ row.yours }}</td>
          <td>{{ row.theirs }}</td>
        </tr>
      </tbody>
    </table>
    <div class="row mt-3">
      <v-btn variant="outlined" @click="emit('takeTheirs')">Take theirs</v-btn><v-btn @click="emit('keepMine')">Save mine over it</v-btn>
    </div>
  </div>
</template>

<style scoped>
.stale {
  border-left: 5px solid var(--danger);
  padding: 10px 16px;
  background: var(--danger-ground);
}
table {
  margin-top: 10px;
  border-collapse: collapse;
}
th,
td {
  text-align: left;
  padding: 4px 18px 4px 0;
  font-weight: 420;
  vertical-align: top;
}
thead th {
  color: var(--ink-soft);
}
tbody th {
  font-weight: 620;
}
</style>
