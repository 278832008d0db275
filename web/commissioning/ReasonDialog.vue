<script setup lang="ts">
import { ref, watch } from 'vue';

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
  <v-dialog v-model="open" max-width="560">
    <v-card class="pa-6">
      <form class="stack" @submit.prevent="say">
        <h2>{{ title }}</h2>
        <p v-if="warning" class="quiet">{{ warning }}</p>
        <v-textarea
          v-model="text"
          :label="label"
          autofocus
          :error-messages="tooShort ? [`At least ${least} ${least === 1 ? 'letter' : 'letters'}`] : []"
          @keydown.ctrl.enter="say"
        />
        <div class="row">
          <v-btn type="submit" size="large">{{ button }}</v-btn><v-btn variant="text" size="large" @click="open = false">Close</v-btn>
        </div>
      </form>
    </v-card>
  </v-dialog>
</template>
