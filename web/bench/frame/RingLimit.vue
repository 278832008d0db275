<script setup lang="ts">
import { computed } from 'vue';

/** A clock as a ring: what is over of it is solid. */
const props = defineProps<{ /** 0 … 1 */ share: number; label: string; until?: string }>();
const RADIUS = 58;
const round = 2 * Math.PI * RADIUS;
const gone = computed(() => Math.max(0, Math.min(1, props.share)) * round);
</script>

<template>
  <svg viewBox="0 0 248 150" role="img" :aria-label="`${label}: ${Math.floor(100 * share)} % over`">
    <g transform="translate(75 75) rotate(-90)">
      <circle :r="RADIUS" class="whole" />
      <circle :r="RADIUS" class="gone" :stroke-dasharray="`${gone} ${round}`" />
    </g>
    <text x="75" y="82" text-anchor="middle" class="share">{{ Math.floor(100 * share) }} %</text>
    <text v-if="until" x="150" y="70" class="words">until</text>
    <text v-if="until" x="150" y="92" class="words strong">{{ until }}</text>
  </svg>
</template>

<style scoped src="./limit.css"></style>

<style scoped>
circle {
  fill: none;
  stroke: var(--ink);
}
.whole {
  stroke-width: 2;
}
.gone {
  stroke-width: 16;
}
.share {
  font-size: 22px;
  font-weight: 620;
  fill: var(--ink);
}
.words {
  font-size: 16px;
  fill: var(--ink-soft);
}
.strong {
  fill: var(--ink);
  font-weight: 620;
}
</style>
