<script setup lang="ts">
import { ref, watch } from 'vue';
import FormDialog from '../../base/look/FormDialog.vue';

const open = defineModel<boolean>({ required: true });
const props = defineProps<{ title: string; label: string; button: string; least: number; warning?: string }>();
const emit = defineEmits<{ say: [text: string] }>();
const text = ref('');
const tooShort = ref(false);
watch(open, (now) => {
  if (now) {
    text.value = '';
    tooShort.value = false;
  }
});

function say(): void {
  tooShort.value = text.value.trim().length < props.least;
  if (!tooShort.value) emit('say', text.value.trim());
}
</script>

<template>
  <FormDialog v-model="open" :title="title" :button="button" :width="560" @submit="say">
    <p v-if="warning" class="quiet">{{ warning }}</p>
    <v-textarea
      v-model="text"
      :label="label"
      autofocus
      :error-messages="tooShort ? [`At least ${least} ${least === 1 ? 'letter' : 'letters'}`] : []"
      @keydown.ctrl.enter="say"
    />
  </FormDialog>
</template>
