<script setup lang="ts">
import type { DoorAct } from '@core/workshop/people/doorSettings.js';
import type { Said } from '@core/workshop/owner-door/said.js';
import { LINK } from '@core/workshop/owner-door/address.js';
import { computed, ref } from 'vue';
import { formatHours } from '@core/base/units/display.js';
import { asAddress } from './doorApi.js';

/** What an owner can send at any time: a line, the hours of a meter, a log. */
const props = defineProps<{
  may: readonly DoorAct[];
  today: string;
  busy: boolean;
  tell: (said: Said, file?: string | null) => Promise<boolean>;
}>();
const emit = defineEmits<{ problem: [words: string] }>();
const line = ref('');
const hours = ref('');
/** as a meter is copied down: thousands apart or not, decimals by point or comma */
const read = computed(() => Number(hours.value.replace(/\s/g, '').replace(',', '.')));
const mayGo = computed(() => hours.value.trim() !== '' && read.value >= 0);
async function sendLine(): Promise<void> {
  if (line.value.trim() && (await props.tell({ kind: 'line', text: line.value.trim() }))) line.value = '';
}
async function sendHours(): Promise<void> {
  if (mayGo.value && (await props.tell({ kind: 'meter', hours: read.value, on: props.today }))) hours.value = '';
}
async function sendLog(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const [file] = input.files ?? [];
  if (file)
    await asAddress(file, 'text/csv', LINK.mostFileBytes)
      .then((address) => props.tell({ kind: 'log' }, address))
      .catch((error: unknown) => {
        emit('problem', error instanceof Error ? error.message : '');
      });
  input.value = '';
}
</script>

<template>
  <section v-if="may.some((act) => ['line', 'meter', 'log'].includes(act))" class="sheet" aria-labelledby="send">
    <h2 id="send">Tell the workshop</h2>
    <form v-if="may.includes('line')" novalidate @submit.prevent="sendLine">
      <label>A line <textarea v-model="line" rows="2" maxlength="1000" /></label>
      <button type="submit" class="plain" :disabled="busy || !line.trim()">Send the line</button>
    </form>
    <details v-if="may.includes('meter') || may.includes('log')">
      <summary>Hours and logs</summary>
      <form v-if="may.includes('meter')" novalidate @submit.prevent="sendHours">
        <label>Hours on its meter today <input v-model="hours" type="text" inputmode="decimal" maxlength="9" /></label>
        <button type="submit" class="plain" :disabled="busy || !mayGo">
          {{ mayGo ? `Send ${formatHours(read)} h` : 'Send the hours' }}
        </button>
      </form>
      <label v-if="may.includes('log')" class="file plain">
        <input type="file" accept=".csv,.txt,text/csv,text/plain" @change="sendLog" />
        Send a log of the monitoring program (CSV)
      </label>
    </details>
  </section>
</template>
