<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { ref } from 'vue';
import { useSubmit } from '../../base/http/useSubmit.js';
import FormDialog from '../../base/look/FormDialog.vue';
import { useNotices } from '../../base/shell/notices.js';
import { useLayouts } from './layoutStore.js';

/** Keeps this loop as a layout that others begin with. */
const props = defineProps<{ loop: LoopFile; proposed: string }>();
const layouts = useLayouts();
const submit = useSubmit();
const notices = useNotices();
const open = ref(false);
const name = ref('');
const note = ref('');
function begin(): void {
  name.value = props.proposed;
  note.value = '';
  submit.clear();
  open.value = true;
}
async function keep(): Promise<void> {
  const made = await submit.run((key) => layouts.add({ name: name.value.trim(), note: note.value.trim(), file: props.loop }, key));
  if (!made) return;
  open.value = false;
  notices.say(say('{name} is offered wherever a loop begins.', { name: made.name }), () => layouts.remove(made));
}
</script>

<template>
  <button type="button" class="link" @click="begin">Keep as our layout</button>
  <FormDialog
    v-model="open"
    title="A layout of ours"
    button="Keep it"
    :busy="submit.busy.value"
    :problem="submit.problem.value"
    @submit="keep"
  >
    <v-text-field v-model="name" label="What you call it" :error-messages="submit.at('name')" maxlength="120" autocomplete="off" />
    <v-text-field v-model="note" label="For which machines" :error-messages="submit.at('note')" autocomplete="off" />
    <p class="quiet">Volumes that fills of this machine taught, and ports out of reach in it, stay with this machine.</p>
  </FormDialog>
</template>

<style scoped>
.link {
  text-decoration: underline;
  min-height: 44px;
}
</style>
