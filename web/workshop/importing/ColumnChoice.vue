<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { computed } from 'vue';
import type { DayOrder } from '@core/workshop/importing/days.js';
import { importFields, type ImportKey, type ImportTableKind } from '@core/workshop/importing/fields.js';
import { columnOf, type FileTable } from './readTable.js';
import { readAs } from './samples.js';

/** Which column holds what, with its first cells as they stand and as they are read. */
const props = defineProps<{ kind: ImportTableKind; table: FileTable; dayOrder: DayOrder }>();
const mapping = defineModel<Record<string, number | null>>({ required: true });
const keys = computed(() => Object.keys(importFields(props.kind)) as ImportKey[]);
const columns = computed(() => [
  { value: null, title: say('not in this table') },
  ...props.table.headings.map((heading, value) => ({ value, title: heading.trim() || say('column {value}', { value: value + 1 }) })),
]);
const SHOWN = 3;
function sample(key: ImportKey): string {
  const cells = columnOf(props.table, mapping.value[key]).slice(0, SHOWN);
  const first = cells[0];
  const read = first === undefined ? null : readAs(key, first, props.dayOrder);
  return read === null || read === first ? cells.join(', ') : `${first} → ${read}`;
}
</script>

<template>
  <div class="fields">
    <div v-for="key in keys" :key="key" class="field" :class="{ unused: mapping[key] === null }">
      <v-select
        :model-value="mapping[key]"
        :items="columns"
        :label="`${importFields(kind)[key]?.label}${importFields(kind)[key]?.needed ? ', needed' : ''}`"
        density="compact"
        hide-details
        @update:model-value="mapping = { ...mapping, [key]: $event ?? null }"
      />
      <span class="quiet sample figures">{{ sample(key) }}</span>
    </div>
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 270px), 1fr));
  gap: 8px 24px;
}
.sample {
  display: block;
  min-height: 1.5em;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
