<script setup lang="ts">
import { useLimitWords } from '@core/edge/words/dates.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import type { RunState } from '@core/bench/runs/state.js';
import { USE_LIMIT_KEYS, type UseLimit } from '@core/workshop/due-dates/facts.js';
import { USE_LIMITS } from '@core/workshop/due-dates/useLimits.js';
import { ref } from 'vue';

/** A fix that waits for a part: what holds until then, how the machine may be used, and the day by which it must be in. */
defineProps<{ state: RunState }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const open = ref(false);
const what = ref('');
const awaits = ref('');
const until = ref('');
const limits = ref<UseLimit[]>(['do-not-move', 'level-daily']);
const problem = ref<string | null>(null);

function enter(): void {
  if (!what.value.trim() || !awaits.value.trim() || !until.value || limits.value.length === 0) {
    problem.value = 'Say what holds for now, which part is awaited, the last day for it, and at least one limit of use.';
    return;
  }
  problem.value = null;
  emit('send', {
    type: 'temporary-fix',
    step: 'mend',
    what: what.value.trim(),
    awaits: awaits.value.trim(),
    until: until.value,
    limits: [...limits.value],
  });
  open.value = false;
}
</script>

<template>
  <section class="temporary">
    <ul v-if="state.service.temporaryFixes.length" class="plain-list">
      <li v-for="fix in state.service.temporaryFixes" :key="fix.eventId">
        <strong>Temporary: {{ fix.what }}</strong> until {{ fix.awaits }}, by {{ fix.until }} at the latest;
        {{ useLimitWords(fix.limits) }}
      </li>
    </ul>
    <v-btn v-if="!open" variant="outlined" size="large" @click="open = true">This fix is temporary</v-btn>
    <form v-else class="form" novalidate @submit.prevent="enter">
      <v-text-field v-model="what" label="What holds for now" placeholder="a run that was trimmed and pulls a little" hide-details />
      <v-text-field v-model="awaits" label="What is awaited" placeholder="half a metre of the same tube" hide-details />
      <v-text-field v-model="until" type="date" label="Final fix by" hide-details />
      <fieldset>
        <legend>Until then the owner</legend>
        <label v-for="limit in USE_LIMIT_KEYS" :key="limit"
          ><input v-model="limits" type="checkbox" :value="limit" /> {{ USE_LIMITS[limit] }}</label
        >
      </fieldset>
      <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
      <v-btn type="submit" size="large">Opens its own follow-up</v-btn>
    </form>
  </section>
</template>

<style scoped>
.temporary,
.form {
  display: grid;
  gap: 10px;
  justify-items: start;
}
.form > .v-input {
  width: 100%;
}
fieldset {
  border: 0;
  padding: 0;
}
label {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 44px;
}
input[type='checkbox'] {
  width: 22px;
  height: 22px;
  accent-color: var(--ink);
}
li {
  border-left: 5px solid var(--ink);
  padding: 4px 0 4px 12px;
}
</style>
