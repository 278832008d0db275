<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { ref } from 'vue';
import { REVISION_KINDS, SAVED_KINDS, type RevisionKind } from '@core/machine/loop-file/revisionKinds.js';
import FormDialog from '../../base/look/FormDialog.vue';

/** What kind of revision this save is, and why: revisions are kept for ever and compared in years. */
const open = defineModel<boolean>({ required: true });
defineProps<{ busy: boolean }>();
const emit = defineEmits<{ save: [kind: RevisionKind, reason: string] }>();
const kind = ref<RevisionKind>('planned');
const reason = ref('');
const kinds = SAVED_KINDS.map((value) => ({ value, title: say(REVISION_KINDS[value]) }));
</script>

<template>
  <FormDialog v-model="open" title="Save as a new revision" button="Save" :busy="busy" :width="480" @submit="emit('save', kind, reason)">
    <v-select v-model="kind" :items="kinds" label="This is the loop" />
    <v-textarea v-model="reason" label="What changed and why" placeholder="front radiator turned round" />
  </FormDialog>
</template>
