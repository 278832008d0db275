<script setup lang="ts">
import { computed, reactive } from 'vue';
import { markWords } from '@core/edge/words/condition.js';
import { formatDay } from '@core/base/units/dates.js';
import { say } from '@core/base/words/say.js';
import type { ConditionMark } from '@core/physics/condition/series.js';
import { partName, type ReadPart } from '@core/physics/diagnosis/sensors.js';
import type { HandMark } from '@core/workshop/marks/schema.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import FormDialog from '../../base/look/FormDialog.vue';
import DayField from '../../base/units/DayField.vue';

/** Something was done between services that moves its readings: from that day its line begins anew. */
const props = defineProps<{ systemId: string; parts: readonly ReadPart[]; marks: readonly ConditionMark[]; today: string }>();
const emit = defineEmits<{ close: []; saved: [text: string]; strike: [id: string] }>();
const submit = useSubmit();
const form = reactive({ kind: 'paste' as HandMark, part: null as string | null, on: props.today });
const KINDS: Readonly<Record<HandMark, string>> = { paste: 'New paste', part: 'Another block or card' };
const kinds = (Object.keys(KINDS) as HandMark[]).map((value) => ({ value, title: say(KINDS[value]) }));
const places = computed(() => [
  { value: null, title: say('all of them') },
  ...props.parts.map(({ part }) => ({ value: part, title: partName(props.parts, part) })),
]);
const byHand = computed(() => props.marks.flatMap((mark) => (mark.id === undefined ? [] : [{ ...mark, id: mark.id }])));

async function save(): Promise<void> {
  const saved = await submit.run((idempotencyKey) =>
    call('POST', `/systems/${props.systemId}/marks`, { body: { ...form }, idempotencyKey }),
  );
  if (!saved) return;
  emit('saved', say('Written down; what was read before counts no more in its line.'));
  emit('close');
}
</script>

<template>
  <FormDialog
    title="Something was done to it"
    button="Write it down"
    :busy="submit.busy.value"
    :problem="submit.problem.value"
    @submit="save"
    @close="emit('close')"
  >
    <p class="quiet">Fills, cleanings and services stand here by themselves.</p>
    <v-select v-model="form.kind" :items="kinds" label="What" :error-messages="submit.at('kind')" />
    <v-select v-model="form.part" :items="places" label="Where" :error-messages="submit.at('part')" />
    <DayField v-model="form.on" label="On" :max="today" :errors="submit.at('on')" />
    <ul v-if="byHand.length" class="plain-list" aria-label="Written down before">
      <li v-for="mark in byHand" :key="mark.id">
        {{ formatDay(mark.on) }}: {{ markWords(mark) }}<template v-if="mark.part">, {{ partName(parts, mark.part) }}</template>
        <button type="button" class="link" @click="emit('strike', mark.id)">strike out</button>
      </li>
    </ul>
  </FormDialog>
</template>
