<script setup lang="ts">
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import type { RunState } from '@core/bench/runs/state.js';
import { ref } from 'vue';
import ReasonDialog from '../../base/look/ReasonDialog.vue';

/** Loads may stay on the supply where the lead allows it: said with a reason, shown as long as it is so, and taken back at any time. */
defineProps<{ state: RunState; locked: boolean; may: boolean }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const asking = ref(false);
function leave(reason: string): void {
  asking.value = false;
  emit('send', { type: 'loads-stay', stay: true, reason });
}
</script>

<template>
  <section v-if="state.loadsStay" class="live" aria-label="Loads on the supply">
    <p><strong>Loads hang on the supply</strong> ({{ state.loadsStay.text }}). No liquid before the air test has passed.</p>
    <v-btn v-if="!locked" variant="outlined" @click="emit('send', { type: 'loads-stay', stay: false })">They are pulled now</v-btn>
  </section>
  <section v-else-if="may && !locked" class="may">
    <p class="quiet">
      The lead allows the processor, card and drive plugs to stay behind a passed air test. A leak that air did not find meets live
      electronics; the board’s main plug is pulled in any case.
    </p>
    <button type="button" class="link" @click="asking = true">Leave them on, with a reason</button>
    <ReasonDialog
      v-model="asking"
      title="Loads stay on the supply"
      label="Why they stay"
      button="They stay, air goes first"
      :least="3"
      @say="leave"
    />
  </section>
</template>

<style scoped>
.live {
  border-left: 6px solid var(--danger);
  padding: 4px 12px;
}
.live p,
.may p {
  margin: 0 0 6px;
}
.link {
  text-decoration: underline;
  min-height: 44px;
}
</style>
