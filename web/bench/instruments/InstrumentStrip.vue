<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { computed } from 'vue';
import { INSTRUMENT_KEYS, INSTRUMENT_KINDS, type InstrumentKind, type InstrumentKindFacts } from '@core/bench/instruments/kinds.js';
import { formatSpan, grouped } from '@core/base/units/display.js';
import { useNow } from '../../base/units/now.js';
import type { LiveBench } from './liveBench.js';

/** What the instruments of the bench say now. A silent one says since when, and shows no value as if it were live. */
const props = defineProps<{ bench: LiveBench }>();
const now = useNow(1000);

interface Face {
  readonly kind: InstrumentKind;
  readonly label: string;
  readonly text: string | null;
  readonly unit: string;
  readonly silent: string | null;
}

const faces = computed(() =>
  INSTRUMENT_KEYS.flatMap((kind): Face[] => {
    const known = props.bench.instruments.value.find((each) => each.kind === kind);
    const { label, unit, decimals, ofMachine }: InstrumentKindFacts = INSTRUMENT_KINDS[kind];
    const value = props.bench.value(kind, now.value);
    // what sits in a machine leaves with it
    if (!known || (ofMachine && value === null)) return [];
    const last = props.bench.latest.value.get(kind);
    const text = value === null ? null : kind === 'supply' ? (value === 1 ? 'on' : 'off') : grouped(value, decimals);
    const silent = value !== null ? null : known.problem ?? (last ? say('silent for {formatSpan}', { formatSpan: formatSpan(Math.max(0, (now.value - Date.parse(last.at)) / 1000)) }) : say('off line')); // prettier-ignore
    return [{ kind, label, text, unit: unit ?? '', silent }];
  }),
);
const simulated = computed(() => props.bench.source.value === 'simulated');
</script>

<template>
  <section v-if="faces.length" class="strip" aria-label="Instruments of this bench">
    <div v-for="face in faces" :key="face.kind" class="face" :class="{ silent: face.text === null }">
      <span class="name">{{ face.label }}</span>
      <span v-if="face.text !== null" class="value figures"
        >{{ face.text }} <small>{{ face.unit }}</small></span
      >
      <span v-else class="gone">{{ face.silent }}</span>
    </div>
    <span v-if="simulated" class="tag">simulated</span>
  </section>
</template>

<style scoped>
.strip {
  display: flex;
  flex-wrap: wrap;
  border-block: 2px solid var(--ink);
  position: relative;
}
.face {
  display: grid;
  flex: 1 1 96px;
  align-content: start;
  padding: 4px 12px 6px;
  border-left: 1px solid var(--line);
}
.face:first-child {
  border-left: none;
  padding-left: 2px;
}
.name {
  font-size: 0.86rem;
  color: var(--ink-soft);
}
.value {
  font-size: 1.5rem;
  line-height: 1.15;
  font-weight: 380;
  white-space: nowrap;
}
.value small {
  font-size: 0.9rem;
}
.gone {
  font-size: 0.9rem;
}
.silent {
  outline: 1.5px dashed var(--line);
  outline-offset: -1.5px;
}
.tag {
  align-self: center;
  padding: 2px 8px;
  border: 1.5px dashed var(--ink);
  font-size: 0.86rem;
}
</style>
