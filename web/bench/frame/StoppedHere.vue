<script setup lang="ts">
import { describeEntry, type RunEvent } from '@core/bench/runs/log.js';
import type { Procedure } from '@core/bench/runs/procedure.js';
import { formatSpan } from '@core/base/units/display.js';
import { computed, onMounted, onScopeDispose, ref } from 'vue';
import { useNow } from '../../base/units/now.js';
import FramePart from './FramePart.vue';

/** After a minute without a touch: where one stopped, for whoever comes back from the phone. */
const props = defineProps<{ procedure: Procedure; events: readonly RunEvent[] }>();
/** ms without a touch or a key */
const QUIET_MS = 60_000;
const now = useNow(5000);
const touchedMs = ref(Date.now());
const touch = (): void => void (touchedMs.value = Date.now());
const KINDS = ['pointerdown', 'keydown'] as const;
onMounted(() => KINDS.forEach((kind) => window.addEventListener(kind, touch, true)));
onScopeDispose(() => KINDS.forEach((kind) => window.removeEventListener(kind, touch, true)));

const idleMs = ref(0);
const timer = window.setInterval(() => (idleMs.value = Date.now() - touchedMs.value), 5000);
onScopeDispose(() => window.clearInterval(timer));

const last = computed(() => props.events.at(-1) ?? null);
const words = computed(() => (last.value ? describeEntry(props.procedure, last.value, props.events) : null));
const agoS = computed(() => (last.value ? Math.max(0, (now.value - Date.parse(last.value.at)) / 1000) : 0));
</script>

<template>
  <FramePart v-if="idleMs >= QUIET_MS && words" at="so-far">
    <p class="stopped">
      You stopped here, {{ formatSpan(agoS) }} ago: <strong>{{ words }}</strong>
    </p>
  </FramePart>
</template>

<style scoped>
.stopped {
  border-left: 5px solid var(--ink);
  padding-left: 10px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
