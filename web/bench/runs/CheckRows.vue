<script setup lang="ts">
import { computed, ref } from 'vue';
import { openOf, rowsOf, type Look } from '@core/bench/runs/looks.js';
import type { CheckItem } from '@core/bench/runs/procedure.js';
import type { CheckState } from '@core/bench/runs/state.js';

/** Checks as large rows for wet hands. Those that stand between a leak and live electronics carry a bar. */
const props = defineProps<{ checks: readonly CheckItem[]; marks: Record<string, CheckState>; locked: boolean }>();
const emit = defineEmits<{
  mark: [check: string, mark: 'done' | 'open'];
  notNeeded: [check: string, reason: string];
  seen: [checks: string[]];
}>();
const asking = ref<string | null>(null);
const reason = ref('');

/** looks that somebody wants to tick place by place */
const apart = ref<ReadonlySet<string>>(new Set());
const groups = computed(() => {
  const found: { name: string; looks: Look[] }[] = [];
  for (const row of rowsOf(props.checks, props.marks, apart.value)) {
    const group = found.find((each) => each.name === row.group);
    if (group) group.looks.push(row);
    else found.push({ name: row.group, looks: [row] });
  }
  return found;
});
const isSeen = (look: Look): boolean => openOf(look, props.marks).length === 0;
function seen(look: Look): void {
  if (isSeen(look)) apart.value = new Set([...apart.value, look.id]);
  else
    emit(
      'seen',
      openOf(look, props.marks).map(({ id }) => id),
    );
}
/** what is the same in all of them is said once */
function placesOf({ items }: Look): string {
  const [first = ''] = items.map(({ text }) => text);
  const same = /^[^:]*: /.exec(first)?.[0] ?? '';
  const isShared = same !== '' && items.every(({ text }) => text.startsWith(same));
  return items.map(({ text }) => (isShared ? text.slice(same.length) : text)).join(' · ');
}
const markOf = (id: string): string => props.marks[id]?.mark ?? 'open';

function say(check: string): void {
  if (reason.value.trim().length < 3) return;
  emit('notNeeded', check, reason.value.trim());
  asking.value = null;
  reason.value = '';
}
</script>

<template>
  <div>
    <fieldset v-for="group in groups" :key="group.name" class="group">
      <legend v-if="group.name">{{ group.name }}</legend>
      <template v-for="look in group.looks" :key="look.id">
        <div v-if="look.together" class="check whole" :class="isSeen(look) ? 'done' : 'open'">
          <label>
            <input type="checkbox" :checked="isSeen(look)" :disabled="locked" @change="seen(look)" />
            <span class="box" aria-hidden="true" />
            <span class="text"
              ><strong>{{ look.together }}</strong> <span class="figures">({{ look.items.length }})</span>
              <span class="quiet places">{{ placesOf(look) }}</span></span
            >
          </label>
          <button v-if="!locked && !isSeen(look)" type="button" class="skip" @click="apart = new Set([...apart, look.id])">
            one by one
          </button>
        </div>
        <template v-else>
          <div v-for="item in look.items" :key="item.id" class="check" :class="[markOf(item.id), { power: item.beforePower }]">
            <label>
              <input
                type="checkbox"
                :checked="markOf(item.id) === 'done'"
                :disabled="locked"
                @change="emit('mark', item.id, markOf(item.id) === 'done' ? 'open' : 'done')"
              />
              <span class="box" aria-hidden="true" />
              <span class="text"
                >{{ item.text }}<span v-if="item.beforePower" class="visually-hidden">, before power</span>
                <span v-if="markOf(item.id) === 'not-needed'" class="quiet">not needed: {{ marks[item.id]?.reason }}</span></span
              >
            </label>
            <button
              v-if="item.mayNotApply && markOf(item.id) === 'open' && !locked"
              type="button"
              class="skip"
              @click="asking = asking === item.id ? null : item.id"
            >
              not needed
            </button>
            <form v-if="asking === item.id" class="why" @submit.prevent="say(item.id)">
              <v-text-field v-model="reason" label="Why not?" autofocus hint="At least three letters: somebody reads it in a year" />
              <v-btn type="submit" size="large">Note it</v-btn>
            </form>
          </div>
        </template>
      </template>
    </fieldset>
  </div>
</template>

<style scoped>
.group {
  border: none;
  padding: 0;
  margin: 0 0 14px;
}
legend {
  font-weight: 620;
  padding: 0 0 4px;
}
.check {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: stretch;
  border-top: 1px solid var(--line-soft);
}
label {
  display: grid;
  grid-template-columns: 34px 1fr;
  gap: 14px;
  align-items: center;
  min-height: var(--touch);
  cursor: pointer;
  padding: 4px 10px;
}
.check:hover label {
  background: var(--wash);
}
input {
  position: absolute;
  opacity: 0;
  width: 1px;
  height: 1px;
}
.box {
  width: 32px;
  height: 32px;
  border: 2.5px solid var(--ink);
  background: var(--glass);
  border-radius: 3px;
  display: grid;
  place-items: center;
}
.done .box {
  background: var(--ink);
}
.done .box::after {
  content: '';
  width: 9px;
  height: 17px;
  border: solid var(--ground);
  border-width: 0 3.5px 3.5px 0;
  transform: translateY(-2px) rotate(42deg);
}
.not-needed .box {
  background: var(--ink);
}
.not-needed .box::after {
  content: '';
  width: 14px;
  border-top: 3.5px solid var(--ground);
}
input:focus-visible + .box {
  outline: 3px solid var(--ring);
  outline-offset: 2px;
}
.places {
  display: block;
  font-size: 0.92rem;
}
.text {
  font-size: 1.06rem;
}
.done .text,
.not-needed .text {
  color: var(--ink-soft);
}
.power label {
  box-shadow: inset 4px 0 0 var(--ink);
}
.power.done label,
.power.not-needed label {
  box-shadow: inset 4px 0 0 var(--line);
}
.skip {
  padding: 0 16px;
  color: var(--ink-soft);
  text-decoration: underline;
  min-height: var(--touch);
}
.why {
  grid-column: 1 / -1;
  display: flex;
  gap: 12px;
  padding: 6px 10px 14px 58px;
  align-items: flex-start;
}
</style>
