<script setup lang="ts">
import { onScopeDispose, ref, watch } from 'vue';
import { KEY_ACTION_NAMES, KEY_ACTIONS, type KeyAction } from './actions.js';
import { assign, backToUsual, isUsual, keyOf, keysAreOn } from './assigned.js';
import DialogFocus from '../look/DialogFocus.vue';

/** Every key with what it does. Each can be another one, and all that type a character can be silent. */
const open = defineModel<boolean>({ required: true });
/** waits for the key that it is to have */
const changing = ref<KeyAction | null>(null);
const problem = ref<string | null>(null);

function change(action: KeyAction): void {
  problem.value = null;
  changing.value = changing.value === action ? null : action;
}

/** The next key, before anything else on the page sees it. */
function take(event: KeyboardEvent): void {
  const action = changing.value;
  if (action === null || ['Shift', 'Control', 'Alt', 'Meta', 'Tab'].includes(event.key)) return;
  event.preventDefault();
  event.stopImmediatePropagation();
  if (event.key !== 'Escape') problem.value = assign(action, event.key);
  if (problem.value === null) changing.value = null;
}
watch(changing, (now, before) => {
  if (now !== null && before === null) window.addEventListener('keydown', take, { capture: true });
  if (now === null) window.removeEventListener('keydown', take, { capture: true });
});
onScopeDispose(() => window.removeEventListener('keydown', take, { capture: true }));
watch(open, () => {
  changing.value = null;
  problem.value = null;
});
</script>

<template>
  <v-dialog v-model="open" max-width="620" scrollable>
    <v-card class="pa-6">
      <DialogFocus keys-only />
      <h2>Keys</h2>
      <p class="quiet">Touch a key to give it another. They are kept on this device: a pedal is a keyboard, and belongs to its bench.</p>
      <label class="on"><input v-model="keysAreOn" type="checkbox" /> Single letters, digits and signs do something</label>
      <p role="status" class="say" :class="{ danger: problem !== null }">
        {{ problem ?? (changing === null ? '' : `Press the key for: ${KEY_ACTIONS[changing].words}. Escape leaves it as it is.`) }}
      </p>
      <dl class="keys">
        <template v-for="action in KEY_ACTION_NAMES" :key="action"
          ><dt>
            <button
              type="button"
              :aria-label="`Key for ${KEY_ACTIONS[action].words}: ${keyOf(action)}`"
              :aria-pressed="changing === action"
              @click="change(action)"
            >
              <kbd>{{ changing === action ? '…' : keyOf(action) }}</kbd>
            </button>
          </dt>
          <dd>{{ KEY_ACTIONS[action].words }}</dd></template
        >
        <dt class="fixed"><kbd>Ctrl Z</kbd> <kbd>Ctrl Y</kbd></dt>
        <dd>Loop: undo, redo</dd>
      </dl>
      <div class="row mt-4">
        <v-btn size="large" @click="open = false">Close</v-btn>
        <v-btn v-if="!isUsual" size="large" variant="text" @click="backToUsual()">Back to the usual keys</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.on {
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 44px;
}
.on input {
  width: 24px;
  height: 24px;
}
.say {
  min-height: 1.6em;
  margin: 0;
}
.keys {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 2px 16px;
  align-items: center;
  margin: 0;
  overflow-y: auto;
}
.keys dd {
  margin: 0;
}
.keys dt {
  justify-self: end;
}
.keys button {
  min-width: 60px;
  min-height: 40px;
  border-radius: 3px;
}
.keys button:hover,
.keys button[aria-pressed='true'] {
  background: var(--well);
}
</style>
