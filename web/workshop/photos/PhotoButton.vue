<script setup lang="ts">
import { computed, ref } from 'vue';
import { wordsOf } from '../../base/http/api.js';
import { deviceOutbox, useOutbox } from '../../base/outbox/deviceOutbox.js';
import { useSession } from '../people/sessionStore.js';
import { sendPhoto } from './takePhoto.js';

/** Takes a picture with the device's camera, or a file where it has none. */
const props = defineProps<{ systemId: string; jobId: string | null; caption: string; label?: string }>();
const emit = defineEmits<{ taken: [photoId: string] }>();
const session = useSession();
const outbox = useOutbox();
const waitingPhotos = computed(() => outbox.value.waiting.filter(({ kind }) => kind === 'photo').length);
const refused = computed(() => outbox.value.refused.filter((item) => item.kind === 'photo' && item.systemId === props.systemId));
const busy = ref(false);
const problem = ref<string | null>(null);

async function take(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement;
  const file = field.files?.[0];
  if (!file) return;
  busy.value = true;
  problem.value = null;
  try {
    emit('taken', await sendPhoto(props.systemId, props.jobId, file, props.caption, session.account));
  } catch (error) {
    problem.value = wordsOf(error);
  } finally {
    busy.value = false;
    field.value = '';
  }
}
</script>

<template>
  <span class="photo">
    <label :class="{ busy }"
      ><input type="file" accept="image/*" capture="environment" :disabled="busy" @change="take" />{{
        busy ? 'Keeping it …' : (label ?? 'Photograph')
      }}</label
    >
    <span v-if="waitingPhotos > 0" role="status" class="quiet"
      >{{ waitingPhotos === 1 ? 'one waits' : `${waitingPhotos} wait` }} on this device for the server</span
    >
    <span v-for="item in refused" :key="item.id" role="alert" class="danger"
      >{{ item.why }} <button type="button" class="link" @click="deviceOutbox.dismiss(item.id)">Read</button></span
    >
    <span v-if="problem" role="alert" class="danger">{{ problem }}</span>
  </span>
</template>

<style scoped>
label {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  padding: 0 18px;
  border: 1.5px solid var(--ink);
  border-radius: 3px;
  cursor: pointer;
  position: relative;
}
input {
  position: absolute;
  inset: 0;
  opacity: 0;
  cursor: pointer;
}
label:focus-within {
  outline: 3px solid var(--ring);
  outline-offset: 2px;
}
.busy {
  color: var(--ink-soft);
}
</style>
