<script setup lang="ts">
import { computed } from 'vue';
import { useNotices } from './notices.js';

const notices = useNotices();
const open = computed({
  get: () => notices.current !== null,
  set: (value) => {
    if (!value) notices.close();
  },
});

async function undo(): Promise<void> {
  const action = notices.current?.undo;
  notices.close();
  await action?.();
}
</script>

<template>
  <v-snackbar v-model="open" :timeout="7000" location="bottom" class="notice" color="primary">
    <span role="status">{{ notices.current?.text }}</span>
    <template v-if="notices.current?.undo" #actions>
      <v-btn variant="text" color="surface" @click="undo">{{ notices.current.action ?? 'Undo' }}</v-btn>
    </template>
  </v-snackbar>
</template>

<style scoped>
.notice {
  margin-bottom: var(--edge-height);
}
</style>
