<script setup lang="ts">
import FramePart from '../frame/FramePart.vue';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { computed } from 'vue';
import type { Procedure } from '@core/bench/runs/procedure.js';
import { broughtMl, type RunState } from '@core/bench/runs/state.js';
import { formatMl } from '@core/base/units/display.js';
import PartTestForm from './PartTestForm.vue';

/** Parts tested out of the case. What stays inside them counts as already filled. */
const props = defineProps<{ procedure: Procedure; state: RunState; locked: boolean }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const names = computed(() => new Map((props.procedure.facts?.parts ?? []).map(({ id, name }) => [id, name])));
</script>

<template>
  <FramePart at="work">
    <section>
      <p class="big-number">
        {{ state.partTests.length }} <small>{{ state.partTests.length === 1 ? 'part tested' : 'parts tested' }}</small>
      </p>
      <p v-if="broughtMl(state) > 0">
        They bring <b class="figures">{{ formatMl(broughtMl(state)) }}</b> with them: that much less to pour.
      </p>
      <ul class="plain-list">
        <li v-for="{ eventId, value } in state.partTests" :key="eventId" :class="{ danger: !value.tight }">
          <b>{{ names.get(value.part) ?? value.part }}</b> {{ value.tight ? 'tight' : 'leaks' }}, {{ value.how
          }}<template v-if="value.leftMl">, {{ formatMl(value.leftMl) }} inside</template>
        </li>
      </ul>
      <PartTestForm v-if="!locked" class="mt-3" :procedure="procedure" liquid @send="emit('send', $event)" />
    </section>
  </FramePart>
</template>
