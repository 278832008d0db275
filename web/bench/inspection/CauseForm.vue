<script setup lang="ts">
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import type { RunState } from '@core/bench/runs/state.js';
import type { Suspect } from '@core/workshop/lots/suspects.js';
import { computed, ref, useId } from 'vue';
import { capital, say, sayWord } from '@core/base/words/say.js';
import { CAUSES } from '@core/bench/inspection/grade.js';
import { CAUSE_KEYS, type CauseKey } from '@core/workshop/due-dates/facts.js';
import type { InspectItem } from '@core/bench/inspection/items.js';
import FramePart from '../frame/FramePart.vue';
import LotMates from '../../workshop/lots/LotMates.vue';

/** What is suspected, and whether anything stayed inside. A suspicion, so that other machines are looked at in time. */
const props = defineProps<{ state: RunState; items: readonly InspectItem[]; jobId: string | null }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
/** its button stands outside the form, where every step has its act */
const formId = useId();
const cause = ref<CauseKey>('unknown');
const suspect = ref<Suspect>('none');
const item = ref<string | null>(null);
const stayed = ref(false);
const text = ref('');
const said = computed(() => props.state.service.causes);
const nameOf = (id: string): string => props.items.find((each) => each.id === id)?.name ?? id;
const causes = CAUSE_KEYS.map((value) => ({ value, title: say(CAUSES[value]) }));
const suspects = [
  { value: 'none', title: say('Nothing that other machines share') },
  { value: 'coolant-lot', title: say('The coolant’s lot: flag every machine that holds it') },
  { value: 'part', title: say('One part, with its lot') },
];
const parts = computed(() => props.items.map(({ id, name }) => ({ value: id, title: name })));

function enter(): void {
  emit('send', {
    type: 'cause',
    step: 'inspect',
    cause: cause.value,
    suspect: suspect.value,
    item: suspect.value === 'part' ? item.value : null,
    particlesStayed: stayed.value,
    text: text.value,
  });
  cause.value = 'unknown';
  suspect.value = 'none';
  item.value = null;
  stayed.value = false;
  text.value = '';
}
</script>

<template>
  <form :id="formId" class="cause" novalidate @submit.prevent="enter">
    <h3>{{ said.length > 0 ? 'Suspected, on record' : 'What is suspected?' }}</h3>
    <ul v-if="said.length" class="plain-list">
      <li v-for="each in said" :key="each.eventId">
        {{ capital(sayWord(CAUSES[each.cause])) }}<template v-if="each.suspect === 'coolant-lot'">, the coolant’s lot</template
        ><template v-else-if="each.item">, {{ nameOf(each.item) }}</template
        ><template v-if="each.particlesStayed">; some of it stayed inside</template><template v-if="each.text">: {{ each.text }}</template>
      </li>
    </ul>
    <div class="fields">
      <v-select v-model="cause" :items="causes" label="Suspected cause" hide-details />
      <v-select v-model="suspect" :items="suspects" label="Suspected with it" hide-details />
      <v-select v-if="suspect === 'part'" v-model="item" :items="parts" label="Which part" hide-details />
      <v-text-field v-model="text" label="Why" hide-details />
    </div>
    <LotMates v-if="jobId !== null && suspect !== 'none'" :job-id="jobId" :suspect="suspect" :item="suspect === 'part' ? item : null" />
    <label class="stayed"
      ><input v-model="stayed" type="checkbox" /> Some of it stays inside: “clean” is not claimed, an early look and a shorter interval
      follow</label
    >
    <FramePart at="act">
      <v-btn type="submit" :form="formId" size="x-large" variant="outlined">{{ said.length > 0 ? 'Another one' : 'Write it down' }}</v-btn>
    </FramePart>
  </form>
</template>

<style scoped>
.cause {
  display: grid;
  gap: 10px;
  border-top: 2px solid var(--ink);
  padding-top: 12px;
  justify-items: start;
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  width: 100%;
}
.stayed {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 44px;
}
.stayed input {
  width: 22px;
  height: 22px;
  accent-color: var(--ink);
}
</style>
