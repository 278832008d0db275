<script setup lang="ts">
import { choicesOf } from '../../base/look/choices.js';
import { say } from '@core/base/words/say.js';
import { FAN_EDGES_MM } from '@core/machine/electrical/fans.js';
import { CABLES, CONNECTOR_KINDS, SUPPLY, type Connector, type PartOfLoop } from '@core/machine/electrical/sheet.js';
import { computed } from 'vue';

/** One connector: its name, and what is said of it once it is touched. */
const props = defineProps<{
  /** what it may hang on */
  sources: readonly { readonly value: string; readonly title: string }[];
  pumps: readonly { readonly of: PartOfLoop; readonly title: string }[];
  radiators: readonly { readonly of: PartOfLoop; readonly title: string }[];
  open: boolean;
}>();
const own = defineModel<Connector>({ required: true });
const emit = defineEmits<{ touch: []; remove: [] }>();

const kinds = choicesOf(CONNECTOR_KINDS);
const cables = choicesOf(CABLES);
const set = (more: Partial<Connector>): void => void (own.value = { ...own.value, ...more });
const keyOf = (of: PartOfLoop | null): string => (of ? `${of.loopId} ${of.part}` : '');
/** parts of the loops that it may belong to */
const parts = computed(() => (own.value.kind === 'pump' ? props.pumps : own.value.kind === 'fans' ? props.radiators : []));
function take(key: string): void {
  set({ of: parts.value.find(({ of }) => keyOf(of) === key)?.of ?? null });
}
function become(kind: Connector['kind']): void {
  set({ kind, of: null, fans: kind === 'fans' ? { count: 3, sizeMm: 120 } : null, ...(kind.startsWith('board-') ? { from: SUPPLY } : {}) });
}
const beside = computed(() => {
  const { fans, openWhy, cable, from, kind } = own.value;
  return [
    say(CONNECTOR_KINDS[kind].label),
    ...(fans ? [say('{count} × {sizeMm} mm', fans)] : []),
    ...(openWhy === null ? [] : [say('not connected: {why}', { why: openWhy })]),
    ...(from === SUPPLY && cable !== 'own' ? [say(CABLES[cable].label)] : []),
  ].join(' · ');
});
</script>

<template>
  <li :class="{ off: own.openWhy !== null, doubtful: own.from === 'supply' && own.cable !== 'own', open }">
    <button type="button" class="face" :aria-expanded="open" @click="emit('touch')">
      <i class="socket" aria-hidden="true"><b /><b /></i>
      <span class="name">{{ own.name }}</span>
      <span class="quiet">{{ beside }}</span>
    </button>
    <div v-if="open" class="more">
      <v-text-field
        :model-value="own.name"
        label="Its name at this bench"
        density="comfortable"
        autocomplete="off"
        @update:model-value="set({ name: $event })"
      />
      <v-select
        :model-value="own.kind"
        :items="kinds"
        item-title="title"
        label="What it feeds"
        density="comfortable"
        @update:model-value="become"
      />
      <v-select
        v-if="!own.kind.startsWith('board-')"
        :model-value="own.from"
        :items="sources"
        label="Hangs on"
        density="comfortable"
        @update:model-value="set({ from: $event })"
      />
      <v-select
        v-if="parts.length > 0"
        :model-value="keyOf(own.of)"
        :items="parts.map(({ of, title }) => ({ value: keyOf(of), title }))"
        :label="own.kind === 'pump' ? 'Which pump' : 'On which radiator'"
        :clearable="own.kind === 'fans'"
        density="comfortable"
        @update:model-value="take"
      />
      <template v-if="own.fans">
        <v-text-field
          :model-value="own.fans.count"
          type="number"
          min="1"
          max="20"
          label="How many fans"
          density="comfortable"
          @update:model-value="
            set({ fans: { sizeMm: own.fans.sizeMm, count: Math.max(1, Math.min(20, Math.round(Number($event)) || 1)) } })
          "
        />
        <v-select
          :model-value="own.fans.sizeMm"
          :items="FAN_EDGES_MM.map((mm) => ({ value: mm, title: `${mm} mm` }))"
          label="Edge of one"
          density="comfortable"
          @update:model-value="set({ fans: { count: own.fans.count, sizeMm: $event } })"
        />
      </template>
      <v-select
        v-if="own.from === 'supply'"
        :model-value="own.cable"
        :items="cables"
        label="Its lead"
        density="comfortable"
        @update:model-value="set({ cable: $event })"
      />
      <v-text-field
        :model-value="own.openWhy ?? ''"
        label="Not connected, because"
        hint="Empty: it is connected"
        persistent-hint
        density="comfortable"
        autocomplete="off"
        @update:model-value="set({ openWhy: $event.trim() === '' ? null : $event })"
      />
      <v-btn variant="text" class="out" @click="emit('remove')">It is not there any more</v-btn>
    </div>
  </li>
</template>

<style scoped>
li {
  position: relative;
  padding-left: 34px;
}
/* the lead: from the rail to the socket */
li::before {
  content: '';
  position: absolute;
  left: 0;
  top: 27px;
  width: 34px;
  border-top: 3px solid var(--ink);
}
li.off::before {
  border-top: 3px dotted var(--line);
}
li.doubtful::before {
  border-top-style: dashed;
}
.face {
  display: grid;
  grid-template-columns: 26px auto 1fr;
  gap: 0 12px;
  align-items: center;
  width: 100%;
  min-height: 54px;
  text-align: left;
}
.face .quiet {
  text-align: right;
}
.name {
  font-weight: 600;
}
.off .name {
  font-weight: 420;
}
/* a socket: two contacts; filled where something is in it */
.socket {
  display: inline-grid;
  grid-template-columns: 1fr 1fr;
  gap: 3px;
  width: 26px;
  height: 20px;
  padding: 5px 5px;
  border: 2px solid var(--ink);
  border-radius: 3px;
  background: var(--ink);
}
.socket b {
  background: var(--sheet);
}
.off .socket {
  background: none;
}
.off .socket b {
  background: var(--line);
}
.more {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px 14px;
  align-items: start;
  padding: 8px 0 12px 38px;
}
.out {
  justify-self: start;
}
</style>
