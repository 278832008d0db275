<script setup lang="ts">
import { ref } from 'vue';
import { REVISION_KINDS, type RevisionKind } from '@core/loops/revisionKinds.js';

/** What kind of revision this save is, and why: revisions are kept for ever and compared in years. */
const open = defineModel<boolean>({ required: true });
defineProps<{ busy: boolean }>();
const emit = defineEmits<{ save: [kind: RevisionKind, reason: string] }>();
const kind = ref<RevisionKind>('planned');
const reason = ref('');
const kinds = Object.entries(REVISION_KINDS).map(([value, title]) => ({ value, title }));
</script>

<template>
  <v-dialog v-model="open" max-width="480">
    <v-card class="pa-6">
      <form class="stack" @submit.prevent="emit('save', kind, reason)">
        <h2>Save as a new revision</h2>
        <v-select v-model="kind" :items="kinds" label="This is the loop" />
        <v-textarea v-model="reason" label="What changed and why" placeholder="front radiator turned round" />
        <div class="row">
          <v-btn type="submit" size="large" :loading="busy">Save</v-btn
          ><v-btn variant="text" size="large" @click="open = false">Close</v-btn>
        </div>
      </form>
    </v-card>
  </v-dialog>
</template>
