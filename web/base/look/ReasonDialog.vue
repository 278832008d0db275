<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { computed, ref, watch } from 'vue';
import FormDialog from './FormDialog.vue';
import TickLines from './TickLines.vue';

const open = defineModel<boolean>({ required: true });
const props = defineProps<{
  title: string;
  label: string;
  button: string;
  least: number;
  warning?: string;
  problem?: string | null;
  /** what has to be true first, each to be ticked */
  musts?: readonly { id: string; text: string }[];
  legend?: string;
}>();
const emit = defineEmits<{ say: [text: string] }>();
const text = ref('');
const tooShort = ref(false);
/** ids of what was ticked */
const seen = ref<string[]>([]);
const asked = ref(false);
const first = computed(() => props.legend ?? say('First'));
const untrue = computed(() => (props.musts ?? []).filter(({ id }) => !seen.value.includes(id)).length);
const toGo = computed(() => say('Do this first, then tick it: {untrue} to go', { untrue: untrue.value }));
watch(open, (now) => {
  if (now) {
    text.value = '';
    tooShort.value = false;
    seen.value = [];
    asked.value = false;
  }
});

function done(): void {
  tooShort.value = text.value.trim().length < props.least;
  asked.value = true;
  if (!tooShort.value && untrue.value === 0) emit('say', text.value.trim());
}
</script>

<template>
  <FormDialog v-model="open" :title="title" :button="button" :width="560" :problem="problem ?? null" @submit="done">
    <p v-if="warning" class="quiet">{{ warning }}</p>
    <TickLines v-if="musts?.length" v-model="seen" :legend="first" :lines="musts" />
    <p v-if="asked && untrue > 0" role="alert" class="danger">{{ toGo }}</p>
    <v-textarea
      v-model="text"
      :label="label"
      autofocus
      :error-messages="tooShort ? [`At least ${least} ${least === 1 ? 'letter' : 'letters'}`] : []"
      @keydown.ctrl.enter="done"
    />
  </FormDialog>
</template>
