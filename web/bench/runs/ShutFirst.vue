<script setup lang="ts">
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { leftOpen } from '@core/bench/runs/locks.js';
import type { Procedure } from '@core/bench/runs/procedure.js';
import type { RunState } from '@core/bench/runs/state.js';
import { shutWords } from '@core/edge/words/filling.js';
import { computed } from 'vue';
import FrameFigure from '../frame/FrameFigure.vue';
import FrameOrder from '../frame/FrameOrder.vue';
import FramePart from '../frame/FramePart.vue';
import { shutEntries } from './shutEntries.js';

/** What still stands open when the machine's own power comes back: it is shut before anything else is done. */
const props = defineProps<{ procedure: Procedure; state: RunState }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const open = computed(() => leftOpen(props.procedure, props.state));
const words = computed(() => shutWords(open.value, props.procedure.facts));
function shut(): void {
  for (const body of shutEntries(open.value)) emit('send', body);
}
</script>

<template>
  <template v-if="open.ports.length + open.joints.length > 0">
    <FrameOrder :say="words.order" :how="words.how" />
    <FrameFigure :value="words.big" :unit="words.small" />
    <FramePart at="act"><v-btn size="x-large" @click="shut">Shut</v-btn></FramePart>
  </template>
</template>
