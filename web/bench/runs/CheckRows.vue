<script setup lang="ts">
import { computed, onScopeDispose, ref } from 'vue';
import { openOf, rowsOf, type Look } from '@core/bench/runs/looks.js';
import type { CheckItem } from '@core/bench/runs/procedure.js';
import type { CheckState } from '@core/bench/runs/state.js';
import CheckRow from './CheckRow.vue';

/** What is to be looked at, in the order of the hands; what belongs later stands last and pale, what is answered is folded. */
const props = withDefaults(
  defineProps<{
    checks: readonly CheckItem[];
    marks: Record<string, CheckState>;
    locked: boolean;
    /** when a check can be ticked that cannot be yet, by its id */
    later?: Readonly<Record<string, string>>;
  }>(),
  { later: () => ({}) },
);
const emit = defineEmits<{
  mark: [check: string, mark: 'done' | 'open'];
  notNeeded: [check: string, reason: string];
  seen: [checks: string[]];
}>();

/** looks that somebody wants to tick place by place */
const apart = ref<ReadonlySet<string>>(new Set());
const rows = computed(() => rowsOf(props.checks, props.marks, apart.value));
const isSeen = (look: Look): boolean => openOf(look, props.marks).length === 0;

/** ticked just now: these stay where the finger was, so that the next touch meets no other row */
const fresh = ref<ReadonlySet<string>>(new Set());
/** ms after the last tick in which a hand may still be on its way to the next row */
const FRESH_MS = 2500;
let folding: number | undefined;
function keepInPlace(id: string): void {
  fresh.value = new Set([...fresh.value, id]);
  window.clearTimeout(folding);
  folding = window.setTimeout(() => (fresh.value = new Set()), FRESH_MS);
}
onScopeDispose(() => window.clearTimeout(folding));

const laterOf = (look: Look): string | null => {
  const open = openOf(look, props.marks);
  return open.length > 0 && open.every(({ id }) => props.later[id] !== undefined) ? (props.later[open[0]?.id ?? ''] ?? null) : null;
};
/** a step that is closed is read whole */
const folded = computed(() => (props.locked ? [] : rows.value.filter((look) => isSeen(look) && !fresh.value.has(look.id))));
const groups = computed(() => {
  const open = rows.value.filter((look) => !folded.value.includes(look));
  const found: { name: string; looks: Look[] }[] = [];
  for (const look of [...open.filter((each) => laterOf(each) === null), ...open.filter((each) => laterOf(each) !== null)]) {
    const group = found.at(-1);
    if (group?.name === look.group) group.looks.push(look);
    else found.push({ name: look.group, looks: [look] });
  }
  return found;
});

function mark(look: Look, { id }: CheckItem): void {
  const done = props.marks[id]?.mark === 'done';
  if (!done) keepInPlace(look.id);
  emit('mark', id, done ? 'open' : 'done');
}
function notNeeded(look: Look, check: string, reason: string): void {
  keepInPlace(look.id);
  emit('notNeeded', check, reason);
}
function seen(look: Look): void {
  keepInPlace(look.id);
  emit(
    'seen',
    openOf(look, props.marks).map(({ id }) => id),
  );
}
const takeApart = (look: Look): void => void (apart.value = new Set([...apart.value, look.id]));
</script>

<template>
  <div>
    <fieldset v-for="(group, index) in groups" :key="`${group.name}-${index}`" class="group">
      <legend v-if="group.name">{{ group.name }}</legend>
      <CheckRow
        v-for="look in group.looks"
        :key="look.id"
        :look="look"
        :marks="marks"
        :locked="locked"
        :later="laterOf(look)"
        @mark="mark(look, $event)"
        @seen="seen(look)"
        @apart="takeApart(look)"
        @not-needed="(check, reason) => notNeeded(look, check, reason)"
      />
    </fieldset>
    <details v-if="folded.length" class="folded">
      <summary>✓ {{ folded.reduce((sum, { items }) => sum + items.length, 0) }} ticked</summary>
      <CheckRow
        v-for="look in folded"
        :key="look.id"
        :look="look"
        :marks="marks"
        :locked="locked"
        :later="null"
        @mark="mark(look, $event)"
        @apart="takeApart(look)"
      />
    </details>
  </div>
</template>

<style scoped>
.group {
  border: none;
  padding: 0;
  margin: 0 0 10px;
}
legend {
  font-weight: 620;
  padding: 0 0 4px;
}
summary {
  cursor: pointer;
  min-height: 44px;
  display: flex;
  align-items: center;
  color: var(--ink-soft);
}
</style>
