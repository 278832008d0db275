<script setup lang="ts">
import type { DoorPage } from '@core/workshop/owner-door/answers.js';
import type { Said } from '@core/workshop/owner-door/said.js';
import { addDays } from '@core/base/units/calendar.js';
import { formatDay } from '@core/base/units/dates.js';
import { computed, ref } from 'vue';

/** When its coolant is due, and putting that off once the risk has been read. */
const props = defineProps<{
  due: NonNullable<DoorPage['due']>;
  may: boolean;
  today: string;
  busy: boolean;
  tell: (said: Said) => Promise<boolean>;
}>();
const form = ref({ until: '', name: '', why: '', read: false });
const first = computed(() => addDays(props.due.on > props.today ? props.due.on : props.today, 1));
const missing = ref(false);
async function send(): Promise<void> {
  const { until, name, why, read } = form.value;
  missing.value = until < first.value || name.trim().length < 2 || !read;
  if (missing.value) return;
  if (await props.tell({ kind: 'put-off', until, name: name.trim(), why: why.trim() }))
    form.value = { until: '', name: '', why: '', read: false };
}
</script>

<template>
  <section class="sheet" aria-labelledby="due">
    <h2 id="due">Next service</h2>
    <p class="when" :class="{ over: due.on < today }">
      {{ due.on < today ? 'was due' : 'due' }} <strong>{{ formatDay(due.on) }}</strong>
    </p>
    <details v-if="may">
      <summary>Put it off</summary>
      <p class="notice">
        <strong>What that risks.</strong> Temperatures look fine until particles choke the fins. Then a flush no longer helps: the loop is
        stripped, and blocks, fins and plugs may have to be replaced. Coolant past its life also stops protecting the metals inside.
      </p>
      <form novalidate @submit.prevent="send">
        <label>Until <input v-model="form.until" type="date" :min="first" /></label>
        <label>Your name <input v-model="form.name" type="text" autocomplete="name" maxlength="120" /></label>
        <label>Why, if you like <input v-model="form.why" type="text" maxlength="500" /></label>
        <label class="tick"><input v-model="form.read" type="checkbox" /> I have read what that risks</label>
        <p v-if="missing" role="alert" class="problem">A later day, your name, and the tick that you have read it are needed.</p>
        <button type="submit" class="act" :disabled="busy">Ask for that day</button>
      </form>
      <p class="note">The workshop confirms it.</p>
    </details>
  </section>
</template>
