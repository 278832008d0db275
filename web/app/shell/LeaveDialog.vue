<script setup lang="ts">
import DialogFocus from '../../base/look/DialogFocus.vue';

/** Said before somebody signs out while entries wait on this device. */
const open = defineModel<boolean>({ required: true });
defineProps<{ waiting: number }>();
defineEmits<{ sure: [] }>();
</script>

<template>
  <v-dialog v-model="open" max-width="520">
    <v-card class="pa-6">
      <DialogFocus />
      <h2>{{ waiting }} {{ waiting === 1 ? 'entry waits' : 'entries wait' }} on this device</h2>
      <p class="mt-2 mb-4">
        The server does not have {{ waiting === 1 ? 'it' : 'them' }} yet. Signed out, {{ waiting === 1 ? 'it stays' : 'they stay' }} here
        and {{ waiting === 1 ? 'goes' : 'go' }} under the name of who made {{ waiting === 1 ? 'it' : 'them' }} once somebody of this
        workshop signs in on this device.
      </p>
      <div class="row">
        <v-btn size="large" @click="open = false">Stay until delivered</v-btn>
        <v-btn size="large" variant="text" @click="$emit('sure')">Sign out</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>
