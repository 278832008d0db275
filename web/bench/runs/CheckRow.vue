<script setup lang="ts">
import { computed, ref } from 'vue';
import { openOf, type Look } from '@core/bench/runs/looks.js';
import type { CheckItem } from '@core/bench/runs/procedure.js';
import type { CheckState } from '@core/bench/runs/state.js';

/** One look as a row for a wet hand: at one place, or at many with one touch. What stands between a leak and live electronics carries a bar. */
const props = defineProps<{
  look: Look;
  marks: Record<string, CheckState>;
  locked: boolean;
  /** when it can be ticked, in words; null: now */
  later: string | null;
}>();
const emit = defineEmits<{ mark: [item: CheckItem]; seen: []; apart: []; notNeeded: [check: string, reason: string] }>();
const asking = ref(false);
const reason = ref('');
const isSeen = computed(() => openOf(props.look, props.marks).length === 0);
const markOf = (id: string): string => props.marks[id]?.mark ?? 'open';
/** what is the same in all of them is said once */
const places = computed(() => {
  const texts = props.look.items.map(({ text }) => text);
  const same = /^[^:]*: /.exec(texts[0] ?? '')?.[0] ?? '';
  const isShared = same !== '' && texts.every((text) => text.startsWith(same));
  return texts.map((text) => (isShared ? text.slice(same.length) : text)).join(' · ');
});

function say(check: string): void {
  if (reason.value.trim().length < 3) return;
  emit('notNeeded', check, reason.value.trim());
  asking.value = false;
  reason.value = '';
}
</script>

<template>
  <div v-if="look.together" class="check whole" :class="isSeen ? 'done' : 'open'">
    <label :class="{ later }">
      <input type="checkbox" :checked="isSeen" :disabled="locked || later !== null" @change="isSeen ? emit('apart') : emit('seen')" />
      <span class="box" aria-hidden="true" />
      <span class="text"
        ><strong>{{ look.together }}</strong> <span class="figures">({{ look.items.length }})</span>
        <span v-if="later" class="when">{{ later }}</span>
        <span v-else class="quiet places">{{ places }}</span></span
      >
    </label>
    <button v-if="!locked && !isSeen && !later" type="button" class="skip" @click="emit('apart')">one by one</button>
  </div>
  <template v-else>
    <div v-for="item in look.items" :key="item.id" class="check" :class="[markOf(item.id), { power: item.beforePower }]">
      <label :class="{ later }">
        <input
          type="checkbox"
          :checked="markOf(item.id) === 'done'"
          :disabled="locked || (later !== null && markOf(item.id) === 'open')"
          @change="emit('mark', item)"
        />
        <span class="box" aria-hidden="true" />
        <span class="text"
          >{{ item.text }}<span v-if="item.beforePower" class="visually-hidden">, before power</span>
          <span v-if="later && markOf(item.id) === 'open'" class="when">{{ later }}</span>
          <span v-if="markOf(item.id) === 'not-needed'" class="quiet">not needed: {{ marks[item.id]?.reason }}</span></span
        >
      </label>
      <button v-if="item.mayNotApply && markOf(item.id) === 'open' && !locked" type="button" class="skip" @click="asking = !asking">
        not needed
      </button>
      <form v-if="asking" class="why" @submit.prevent="say(item.id)">
        <v-text-field v-model="reason" label="Why not?" placeholder="somebody reads it in a year" autofocus hide-details />
        <v-btn type="submit" size="large">Note it</v-btn>
      </form>
    </div>
  </template>
</template>

<style scoped>
.check {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: stretch;
  border-top: 1px solid var(--line-soft);
}
label {
  position: relative;
  display: grid;
  grid-template-columns: 34px 1fr;
  gap: 14px;
  align-items: center;
  min-height: var(--touch);
  cursor: pointer;
  padding: 4px 10px;
}
.check:hover label {
  position: relative;
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
/* pale, and says when: what is looked at before its time says nothing */
.later {
  cursor: default;
  color: var(--ink-soft);
}
.later .box {
  border-color: var(--line);
}
.check:hover .later {
  background: none;
}
.when {
  display: block;
  font-style: italic;
  font-size: 0.92rem;
}
.places {
  /* the picture shows them all */
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  overflow: hidden;
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
  position: relative;
  box-shadow: inset 4px 0 0 var(--ink);
}
.power.done label,
.power.not-needed label {
  position: relative;
  box-shadow: inset 4px 0 0 var(--line);
}
.skip {
  padding: 0 16px;
  color: var(--ink-soft);
  text-decoration: underline;
  min-height: var(--touch);
}
.why :deep(.v-text-field) {
  flex: 1 1 180px;
  min-width: 0;
}
.why {
  grid-column: 1 / -1;
  display: flex;
  gap: 12px;
  padding: 6px 10px 14px;
  flex-wrap: wrap;
  align-items: flex-start;
}
</style>
