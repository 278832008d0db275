<script setup lang="ts">
import DialogFocus from './DialogFocus.vue';

/** A form in a dialog: its heading, its fields, what went wrong, and the two ways out. Used with `v-model` or rendered while it is open. */
const open = defineModel<boolean>({ default: true });
withDefaults(
  defineProps<{ title: string; button: string; busy?: boolean; problem?: string | null; width?: number; size?: 'large' | 'x-large' }>(),
  { busy: false, problem: null, width: 600, size: 'large' },
);
const emit = defineEmits<{ submit: []; close: [] }>();

function close(): void {
  open.value = false;
  emit('close');
}
</script>

<template>
  <v-dialog :model-value="open" :max-width="width" scrollable @update:model-value="close">
    <v-card class="pa-6">
      <DialogFocus />
      <form class="stack" novalidate @submit.prevent="emit('submit')">
        <h2>{{ title }}</h2>
        <slot />
        <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
        <div class="row">
          <v-btn type="submit" :size="size" :loading="busy">{{ button }}</v-btn>
          <slot name="actions" />
          <v-btn variant="text" size="large" @click="close">Close</v-btn>
        </div>
      </form>
    </v-card>
  </v-dialog>
</template>
