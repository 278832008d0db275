<script setup lang="ts">
import { computed, ref } from 'vue';
import { wordsOf } from '../../base/http/api.js';
import { deviceOutbox, useOutbox } from '../../base/outbox/deviceOutbox.js';
import { useSession } from '../people/sessionStore.js';
import FileButton from '../../base/files/FileButton.vue';
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

async function take(file: File): Promise<void> {
  busy.value = true;
  problem.value = null;
  try {
    emit('taken', await sendPhoto(props.systemId, props.jobId, file, props.caption, session.account));
  } catch (error) {
    problem.value = wordsOf(error);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <span class="photo">
    <FileButton accept="image/*" capture :disabled="busy" @picked="take">{{ busy ? 'Keeping it …' : (label ?? 'Photograph') }}</FileButton>
    <span v-if="waitingPhotos > 0" role="status" class="quiet"
      >{{ waitingPhotos === 1 ? 'one waits' : `${waitingPhotos} wait` }} on this device for the server</span
    >
    <span v-for="item in refused" :key="item.id" role="alert" class="danger"
      >{{ item.why }} <button type="button" class="link" @click="deviceOutbox.dismiss(item.id)">Read</button></span
    >
    <span v-if="problem" role="alert" class="danger">{{ problem }}</span>
  </span>
</template>
