<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import { computed, ref, watch } from 'vue';
import { REVISION_KINDS, SAVED_KINDS, type RevisionKind } from '@core/machine/loop-file/revisionKinds.js';
import FormDialog from '../../base/look/FormDialog.vue';

/** What kind of revision this save is, and why: revisions are kept for ever and compared in years. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{
  busy: boolean;
  filled: boolean;
  /** its build goes on at a bench */
  building: boolean;
}>();
const emit = defineEmits<{ save: [kind: RevisionKind, reason: string] }>();
const usual = (): RevisionKind => (props.filled || props.building ? 'wanted' : 'planned');
const kind = ref<RevisionKind>(usual());
const reason = ref('');
/** of a filled loop: what is only wanted, and what is so already, are two things */
const FILLED_WORDS: Partial<Record<RevisionKind, string>> = {
  wanted: 'as it shall become: a job makes it so',
  change: 'as it is now: changed without a led run',
  'as-built': 'as it is: only the drawing was put right',
};
/** while a build goes on the loop at the bench is that build's */
const BUILDING_WORDS: Partial<Record<RevisionKind, string>> = {
  wanted: 'as it shall become: the build goes on with it',
  'as-built': 'as it is: only the drawing was put right',
};
const kinds = computed(() =>
  props.building
    ? (['wanted', 'as-built'] as const).map((value) => ({ value, title: sayWord(BUILDING_WORDS[value]) as string }))
    : props.filled
      ? (['wanted', 'as-built', 'change'] as const).map((value) => ({ value, title: sayWord(FILLED_WORDS[value]) as string }))
      : SAVED_KINDS.filter((value) => value !== 'wanted').map((value) => ({ value, title: say(REVISION_KINDS[value]) })),
);
watch(
  () => [props.filled, props.building],
  () => (kind.value = usual()),
);
</script>

<template>
  <FormDialog v-model="open" title="Save as a new revision" button="Save" :busy="busy" :width="480" @submit="emit('save', kind, reason)">
    <v-select v-model="kind" :items="kinds" label="This is the loop" />
    <p v-if="kind === 'change'" class="quiet">
      Parts or tubes that came in or out without a led run: what is inside then, nobody knows until its level is read.
    </p>
    <v-textarea v-model="reason" label="What changed and why" placeholder="front radiator turned round" />
  </FormDialog>
</template>
